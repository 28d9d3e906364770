/** What waits, what moved, what was open. */
package mintshelf.app.use.today;
