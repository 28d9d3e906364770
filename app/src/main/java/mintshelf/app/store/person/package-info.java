/** People, groups, grants, tokens, sessions. */
package mintshelf.app.store.person;
