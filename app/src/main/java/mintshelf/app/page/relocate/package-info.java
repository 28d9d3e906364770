/** The plans of moving to another folder, and of another name. */
package mintshelf.app.page.relocate;
