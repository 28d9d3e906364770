/** Releasing whole structures: what has to go together, what is in the way, and that it happens whole or not at all. */
package mintshelf.app.use.release;
