/** Neutral copies: the open forms beside files that only their own programs read. */
package mintshelf.app.use.neutral;
