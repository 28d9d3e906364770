/** Pages of parts and of what bears one number. */
package mintshelf.app.page.part;
