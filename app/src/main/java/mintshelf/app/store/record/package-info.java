/** The record, each entry sealed over the one before. */
package mintshelf.app.store.record;
