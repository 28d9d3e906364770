/** The swap: the pairs, what differs, what becomes of each parent. */
package mintshelf.app.page.swap;
