/** The surface of a solid as it is written: faces, what they lie on, their edges; and the features that they make. */
package mintshelf.core.model.shape;
