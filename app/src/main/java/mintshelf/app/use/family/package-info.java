/** Size families of library shelves: picked by typing or by measuring. */
package mintshelf.app.use.family;
