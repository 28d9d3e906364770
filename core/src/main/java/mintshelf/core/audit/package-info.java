/** The canonical form of a record entry and the chain of hashes over it. */
package mintshelf.core.audit;
