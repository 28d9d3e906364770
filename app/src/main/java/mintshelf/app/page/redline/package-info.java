/** Remarks beside a sheet. */
package mintshelf.app.page.redline;
