/** The pages of taking in. */
package mintshelf.app.page.takein;
