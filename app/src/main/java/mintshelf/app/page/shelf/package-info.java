/** Shelves, folders, rows. */
package mintshelf.app.page.shelf;
