/** The rules of the house as files: what is shipped, and loading it. */
package mintshelf.app.use.house;
