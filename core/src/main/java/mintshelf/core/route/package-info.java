/** Routes as data: stages, moves, their gates and effects; and whether a move opens. */
package mintshelf.core.route;
