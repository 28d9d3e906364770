/** Releases that wait to be made by themselves. */
package mintshelf.app.store.release;
