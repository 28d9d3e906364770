/** How a file on a desk stands to the shelf, and what is done about it first. What lies where is told by others. */
package mintshelf.core.desk;
