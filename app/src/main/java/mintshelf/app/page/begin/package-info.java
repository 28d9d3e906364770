/** The pages on which new documents begin. */
package mintshelf.app.page.begin;
