/** How a new file becomes a row of the filing sheet: its kind, number and title, each with its reason. */
package mintshelf.core.filing;
