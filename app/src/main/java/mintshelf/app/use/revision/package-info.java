/** Revisions: start, drop, move, reinstate. */
package mintshelf.app.use.revision;
