/** Reading the record. */
package mintshelf.app.use.record;
