/** Which attribute of a title block carries which fact. */
package mintshelf.core.drawing.titleblock;
