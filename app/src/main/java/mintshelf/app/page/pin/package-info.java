/** Pins and what was open last. */
package mintshelf.app.page.pin;
