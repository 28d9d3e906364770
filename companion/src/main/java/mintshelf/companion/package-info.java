/** The command line: batch commands on files, without a server. */
package mintshelf.companion;
