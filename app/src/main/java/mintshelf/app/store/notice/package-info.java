/** What people were told on their page. */
package mintshelf.app.store.notice;
