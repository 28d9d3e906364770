/** Documents used again: one in the place of another. */
package mintshelf.core.reuse;
