/** Acts that were done, by their keys. */
package mintshelf.app.store.act;
