/** How a search text is read. */
package mintshelf.core.search;
