/** The machine on which the companion runs: its programs, its file managers, its notices. It knows no shelf. */
package mintshelf.companion.machine;
