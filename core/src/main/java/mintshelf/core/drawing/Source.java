package mintshelf.core.drawing;

/**
 * Where a primitive comes from.
 *
 * @param handle the entity's handle in its file, 0 where it has none
 * @param path names of the blocks that it stands in, outermost first, joined by {@code /}; empty on the sheet itself
 * @param type of the entity, as the file names it
 */
public record Source(long handle, String path, String type) {
    /** Of what no file holds. */
    public static final Source NONE = new Source(0, "", "");
}
