/** Change orders: what a document's line on an order is, how far it is, and what the notice of the change says. */
package mintshelf.core.change;
