/** Size families: tables of measures, one part a row. */
package mintshelf.core.family;
