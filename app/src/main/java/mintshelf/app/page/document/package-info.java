/** A document: its sheet, strip, facts, peek and files. */
package mintshelf.app.page.document;
