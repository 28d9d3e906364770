/** Reading a document, its facts, dropping it. */
package mintshelf.app.use.document;
