/** The desk in this browser, the programs that keep others. */
package mintshelf.app.page.desk;
