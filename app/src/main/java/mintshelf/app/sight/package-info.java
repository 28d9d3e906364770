/** Readers: what this person may see of documents, sheets, rounds and structure, in a number of statements that does not grow with them. Writes nothing but what is kept to be read faster. */
package mintshelf.app.sight;
