/** Pages of jobs. */
package mintshelf.app.page.job;
