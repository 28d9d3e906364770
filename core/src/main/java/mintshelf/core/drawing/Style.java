package mintshelf.core.drawing;

import java.util.List;

/**
 * How a primitive is drawn.
 *
 * @param layer name of its layer
 * @param colour 0xRRGGBB, or {@link #INK} for the paper's own ink
 * @param weight line width in millimetres
 * @param dashes lengths of dashes and gaps in turn, in drawing units; empty for a continuous line
 */
public record Style(String layer, int colour, double weight, List<Double> dashes) {
    /** The ink that stands out from the paper: black on white. */
    public static final int INK = -1;

    /** The paper itself, of what covers other things up. */
    public static final int PAPER = -2;

    public Style {
        dashes = List.copyOf(dashes);
    }
}
