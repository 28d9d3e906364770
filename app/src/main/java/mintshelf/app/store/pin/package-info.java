/** What people keep at hand. */
package mintshelf.app.store.pin;
