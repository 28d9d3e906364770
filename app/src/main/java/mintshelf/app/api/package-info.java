/** The interface for programs: JSON in and out over the same use cases as the pages. */
package mintshelf.app.api;
