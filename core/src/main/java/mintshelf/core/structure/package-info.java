/** What consists of what: components, where used, out of date, as pure functions over a compact graph. */
package mintshelf.core.structure;
