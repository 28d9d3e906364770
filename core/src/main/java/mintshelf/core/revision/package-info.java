/** How revision labels follow each other, and the classes of stage that a revision passes. */
package mintshelf.core.revision;
