/** What was packed for somebody. */
package mintshelf.app.store.pack;
