/** Check-out, check-in, undo, break, strays. */
package mintshelf.app.page.hold;
