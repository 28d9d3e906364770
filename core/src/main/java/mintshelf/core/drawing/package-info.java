/** A drawing as a flat scene: primitives in sheet coordinates with layer and style. Drawings know no documents. */
package mintshelf.core.drawing;
