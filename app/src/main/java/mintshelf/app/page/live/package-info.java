/** What moved while a page is open: as a stream of events, or asked for where that fails. */
package mintshelf.app.page.live;
