/** Trials: started beside documents, worked on, asked about, adopted or dropped. */
package mintshelf.app.use.trial;
