/** Asking for a change, moving an order along, carrying it out. */
package mintshelf.app.use.change;
