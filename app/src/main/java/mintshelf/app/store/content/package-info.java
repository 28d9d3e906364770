/** Contents as pieces, uploads, words on sheets, pictures. */
package mintshelf.app.store.content;
