/** Keeping the rules that sheets are checked by. */
package mintshelf.app.use.check;
