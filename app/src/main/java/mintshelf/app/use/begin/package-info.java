/** New documents begin from templates and from documents that are there. */
package mintshelf.app.use.begin;
