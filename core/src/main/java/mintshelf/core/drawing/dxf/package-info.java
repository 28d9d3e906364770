/** Exchange drawings (DXF) as tags: read without loss, so that what is not understood is kept byte for byte. */
package mintshelf.core.drawing.dxf;
