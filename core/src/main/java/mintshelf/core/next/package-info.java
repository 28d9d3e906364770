/** The one next step that a document offers a person, and what else is possible. */
package mintshelf.core.next;
