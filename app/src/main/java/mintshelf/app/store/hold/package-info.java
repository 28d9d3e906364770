/** Holds and strays. */
package mintshelf.app.store.hold;
