/** What stores share: times, rows, statements kept ready, what is done at the commit. */
package mintshelf.app.store;
