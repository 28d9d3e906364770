/** Two versions over each other, and what differs in words. */
package mintshelf.app.page.compare;
