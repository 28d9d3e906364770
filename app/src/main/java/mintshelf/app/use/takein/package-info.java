/** Taking in what a company has: bringing, reading, the dry run, filing in portions. */
package mintshelf.app.use.takein;
