/** Old versions: reinstating. */
package mintshelf.app.use.version;
