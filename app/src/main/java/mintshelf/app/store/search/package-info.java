/** The index that searches are answered from: one on each node, fed from the tail of the record, never a second truth. */
package mintshelf.app.store.search;
