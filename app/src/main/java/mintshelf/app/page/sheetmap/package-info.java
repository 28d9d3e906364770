/** Which fact stands in which cell of a title block. */
package mintshelf.app.page.sheetmap;
