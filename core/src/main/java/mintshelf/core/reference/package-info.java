/**
 * What files say of other files, and which document each of those names means. Reading the bytes is left to the packages of the
 * formats, what consists of what to {@code structure}.
 */
package mintshelf.core.reference;
