/** The pages of the house rules: kinds, series, routes, filing, facts, and trying them. */
package mintshelf.app.page.house;
