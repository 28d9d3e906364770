/** How bytes are recognised and cut into pieces. Where they are kept is left to the stores. */
package mintshelf.core.content;
