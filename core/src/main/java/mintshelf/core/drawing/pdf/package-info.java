/** Writes a scene as a page of PDF: vectors stay vectors, text stays text. The only package that knows PDFBox. */
package mintshelf.core.drawing.pdf;
