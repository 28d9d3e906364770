/** A scene as SVG for the screen: few, merged paths, by layer and style. */
package mintshelf.core.drawing.svg;
