/** Items, spines, revisions, versions, facts, lists. */
package mintshelf.app.store.document;
