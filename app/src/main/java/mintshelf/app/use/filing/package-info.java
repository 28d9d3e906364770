/** Files become documents. */
package mintshelf.app.use.filing;
