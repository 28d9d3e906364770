/** Sending, signing, the in-tray. */
package mintshelf.app.page.round;
