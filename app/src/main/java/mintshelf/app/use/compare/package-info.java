/** Comparing versions and strays. */
package mintshelf.app.use.compare;
