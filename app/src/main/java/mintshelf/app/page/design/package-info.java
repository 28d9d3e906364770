/** The page of a new design: the numbers of its tree, and what they mean. */
package mintshelf.app.page.design;
