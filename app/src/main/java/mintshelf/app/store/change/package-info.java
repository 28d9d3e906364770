/** Orders, their lines, what they made. */
package mintshelf.app.store.change;
