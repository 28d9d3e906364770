/** Desks and what was brought to them. */
package mintshelf.app.store.desk;
