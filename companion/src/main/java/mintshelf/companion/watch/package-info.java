/** What happens to files of a desk between two acts: when a program has saved one and let go of it, and what was saved on the way. It knows no shelf. */
package mintshelf.companion.watch;
