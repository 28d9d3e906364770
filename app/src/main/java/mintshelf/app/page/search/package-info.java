/** The search and its hints. */
package mintshelf.app.page.search;
