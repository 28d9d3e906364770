/** What changed between two sheets: primitive by primitive, gathered into differences with zone and sentence. */
package mintshelf.core.drawing.compare;
