/** Holds: taking, giving back, breaking, bringing back, strays. */
package mintshelf.app.use.hold;
