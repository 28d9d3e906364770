/** Proving that what is kept is whole. */
package mintshelf.app.use.verify;
