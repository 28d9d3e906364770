/** Documents and folders find another place or another name; what they were is kept. */
package mintshelf.app.use.relocate;
