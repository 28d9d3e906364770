/** The rules that sheets are checked by. */
package mintshelf.app.page.check;
