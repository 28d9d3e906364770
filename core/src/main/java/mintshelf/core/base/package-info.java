/** What all rules share: refusals, their outcome, checked text. Decides nothing by itself. */
package mintshelf.core.base;
