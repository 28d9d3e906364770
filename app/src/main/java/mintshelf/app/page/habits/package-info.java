/** What the shelf remembers of how a person works. */
package mintshelf.app.page.habits;
