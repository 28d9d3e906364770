/** Components, where used, the model. */
package mintshelf.app.page.structure;
