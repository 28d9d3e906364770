/** PDFs and tables that are made of what is released. */
package mintshelf.app.use.output;
