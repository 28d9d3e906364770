/** A new design from another one: what its structure is, what becomes of each thing in it, and that it is made whole. */
package mintshelf.app.use.design;
