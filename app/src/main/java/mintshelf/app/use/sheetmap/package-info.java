/** Sheet maps: editing, writing sheets. */
package mintshelf.app.use.sheetmap;
