/** One document in the place of another, wherever it stands. */
package mintshelf.app.use.swap;
