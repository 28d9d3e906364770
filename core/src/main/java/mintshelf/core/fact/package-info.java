/** The named values that documents record: their types, and what a typed value must look like. */
package mintshelf.core.fact;
