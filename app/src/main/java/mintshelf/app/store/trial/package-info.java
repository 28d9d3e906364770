/** Trials: which documents are tried together, and what was said of them. */
package mintshelf.app.store.trial;
