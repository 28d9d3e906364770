/** What differs between two models, in words. */
package mintshelf.core.model.compare;
