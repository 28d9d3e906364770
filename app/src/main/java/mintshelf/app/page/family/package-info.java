/** Sizes of families. */
package mintshelf.app.page.family;
