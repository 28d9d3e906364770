/** Desks, and tokens for programs. */
package mintshelf.app.use.desk;
