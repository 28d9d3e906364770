/** Mails that wait to be sent. */
package mintshelf.app.store.outbox;
