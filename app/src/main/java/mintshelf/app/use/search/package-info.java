/** The search. */
package mintshelf.app.use.search;
