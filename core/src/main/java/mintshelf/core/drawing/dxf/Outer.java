package mintshelf.core.drawing.dxf;

import java.util.List;

/**
 * What entities take from the insert that they stand in.
 *
 * @param colour 0xRRGGBB or the paper's ink, of what is drawn by block
 * @param path names of the blocks, outermost first
 * @param at where the outermost insert begins in the file
 * @param depth how many inserts deep; 0 on the sheet itself
 */
record Outer(
        Placement placement,
        String layer,
        int colour,
        List<Double> dashes,
        double weight,
        String path,
        long handle,
        int at,
        int depth) {
    static Outer sheet(int ink, double weight) {
        return new Outer(Placement.IDENTITY, "0", ink, List.of(), weight, "", 0, -1, 0);
    }

    Outer at(Placement other) {
        return other.isIdentity()
                ? this
                : new Outer(placement.of(other), layer, colour, dashes, weight, path, handle, at, depth);
    }
}
