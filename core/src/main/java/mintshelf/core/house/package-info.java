/** The rules of the house as values: kinds, series, facts, filing, routes; each in words, compared with another edition, and asked whether it can be kept. */
package mintshelf.core.house;
