/** Number patterns, check characters, and when two numbers are the same number. */
package mintshelf.core.numbering;
