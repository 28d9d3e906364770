/** The filing sheet. */
package mintshelf.app.page.filing;
