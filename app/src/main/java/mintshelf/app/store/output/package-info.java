/** Files that are made of versions. */
package mintshelf.app.store.output;
