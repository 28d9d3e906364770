/** Pins: what somebody keeps at hand. */
package mintshelf.app.use.pin;
