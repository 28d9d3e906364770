/** Structure, where used, references, models. */
package mintshelf.app.use.structure;
