/** Remarks on sheets, their threads, and the looks in which people draw. */
package mintshelf.app.store.redline;
