/** What the shelf writes into a sheet, and the proof that it wrote nothing else. */
package mintshelf.core.stamp;
