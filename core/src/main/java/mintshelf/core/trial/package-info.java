/** Trial lines: ideas tried beside documents, and what becomes of them. */
package mintshelf.core.trial;
