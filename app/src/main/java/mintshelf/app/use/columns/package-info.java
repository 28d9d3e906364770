/** Columns of lists: facts that somebody wants to see beside the others. */
package mintshelf.app.use.columns;
