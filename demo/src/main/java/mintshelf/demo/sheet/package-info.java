/** Draws the sheets of the demo as exchange drawings (DXF). */
package mintshelf.demo.sheet;
