/** Kinds, series, routes, facts, maps, rules of the house. */
package mintshelf.app.store.house;
