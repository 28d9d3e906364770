/** What is read to prove that all is whole. */
package mintshelf.app.store.verify;
