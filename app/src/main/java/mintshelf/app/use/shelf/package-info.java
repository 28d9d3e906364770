/** Shelves and folders. */
package mintshelf.app.use.shelf;
