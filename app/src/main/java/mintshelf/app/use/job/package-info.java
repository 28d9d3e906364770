/** What is done with jobs: given, begun, done. */
package mintshelf.app.use.job;
