/** What has to be released together, in which order, and what is in its way by what helps. */
package mintshelf.core.release;
