/** Taking in what a company has: which of its files become which documents and revisions, and why; nothing is stored here. */
package mintshelf.core.takein;
