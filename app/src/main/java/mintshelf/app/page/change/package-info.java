/** Changes, an order, what it will do, its board. */
package mintshelf.app.page.change;
