/** Bundles, rounds, who is asked, who signed. */
package mintshelf.app.store.round;
