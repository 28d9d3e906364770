/** Parts that have neither drawing nor model, and what bears one number together. */
package mintshelf.app.use.part;
