/** Bytes that come in, in slices. */
package mintshelf.app.use.content;
