/** The list of what acts over sets did. */
package mintshelf.app.page.run;
