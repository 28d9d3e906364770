/** The scenario of the demo: people, shelves, real files and eighteen months of history, the same on every run. */
package mintshelf.demo;
