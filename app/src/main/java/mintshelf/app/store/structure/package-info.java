/** References and links. */
package mintshelf.app.store.structure;
