/** Shelves and folders. */
package mintshelf.app.store.shelf;
