/** A small picture of a model, drawn from its edges. */
package mintshelf.core.model.picture;
