package mintshelf.core.drawing;

import java.util.Objects;

/**
 * Where a primitive comes from. Two are equal whatever their places are: those are others in every file.
 *
 * @param handle the entity's handle in its file, 0 where it has none
 * @param path names of the blocks that it stands in, outermost first, joined by {@code /}; empty on the sheet itself
 * @param type of the entity, as the file names it
 * @param at where the entity of the sheet, or what it stands in there, begins in its file; -1 where that is not known
 */
public record Source(long handle, String path, String type, int at) {
    /** Of what no file holds. */
    public static final Source NONE = new Source(0, "", "");

    public Source(long handle, String path, String type) {
        this(handle, path, type, -1);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Source source
                && handle == source.handle
                && path.equals(source.path)
                && type.equals(source.type);
    }

    @Override
    public int hashCode() {
        return Objects.hash(handle, path, type);
    }
}
