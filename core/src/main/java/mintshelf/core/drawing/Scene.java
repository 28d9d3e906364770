package mintshelf.core.drawing;

import java.util.Collections;
import java.util.List;
import java.util.Map;

/**
 * A drawing, flattened.
 *
 * @param layers in the order of their names, with whether they are shown at first
 * @param notDrawn how many entities of each type could not be drawn: told to the viewer, never dropped silently
 * @param said what of the file could not be read, a sentence each
 */
public record Scene(
        List<Primitive> primitives, Map<String, Boolean> layers, Map<String, Integer> notDrawn, List<String> said) {
    /** How wide a letter is, as a part of its height: what a font really takes is the screen's affair. */
    public static final double LETTER = 0.8;

    public Scene {
        // Not copied: a scene may hold millions.
        primitives = Collections.unmodifiableList(primitives);
        said = List.copyOf(said);
    }

    public Scene(List<Primitive> primitives, Map<String, Boolean> layers, Map<String, Integer> notDrawn) {
        this(List.copyOf(primitives), layers, notDrawn, List.of());
    }

    /** The box of all that is drawn. O(points). */
    public Box extents() {
        Box box = Box.EMPTY;
        for (Primitive p : primitives) box = box.with(p.box());
        return box;
    }
}
