/** The start page. */
package mintshelf.app.page.today;
