/** Filing sheets that are not done. */
package mintshelf.app.store.filing;
