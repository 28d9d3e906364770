/** Jobs as rows. */
package mintshelf.app.store.job;
