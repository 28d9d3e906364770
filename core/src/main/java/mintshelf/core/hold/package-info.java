/** Who may take, give back and break a hold, and what becomes of a file that comes back. */
package mintshelf.core.hold;
