/** Parts lists and balloons of assembly sheets: read, held against what an assembly consists of, written. */
package mintshelf.core.drawing.partslist;
