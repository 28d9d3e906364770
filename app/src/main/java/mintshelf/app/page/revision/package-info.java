/** Starting, dropping, moving, reinstating. */
package mintshelf.app.page.revision;
