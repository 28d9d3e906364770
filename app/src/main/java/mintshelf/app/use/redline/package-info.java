/** Marking sheets, and talking about the marks. */
package mintshelf.app.use.redline;
