/** What became of one sheet, taken up by another one that began from it. */
package mintshelf.core.drawing.merge;
