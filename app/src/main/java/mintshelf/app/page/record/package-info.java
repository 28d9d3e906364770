/** The record of the house and of a document. */
package mintshelf.app.page.record;
