package mintshelf.core.drawing.alike;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.drawing.alike.Traits.Kind;

/**
 * How alike two drawings are.
 *
 * @param much from 0, nothing in common, to 1
 * @param says in what, in short
 */
public record Alike(double much, List<String> says) {
    /** Below this nobody would call them alike. */
    public static final double LITTLE = 0.4;

    private static final double SAME = 0.8;
    private static final double LIKE = 0.4;
    private static final int FEW = 3;

    public Alike {
        says = List.copyOf(says);
    }

    /** Weighs what both have: kinds that neither has do not count. O(marks). */
    public static Alike of(Traits a, Traits b) {
        double holes = share(a, b, Kind.HOLES);
        double outline = share(a, b, Kind.OUTLINE);
        double sizes = share(a, b, Kind.SIZES);
        double words = share(a, b, Kind.WORDS);
        double weights = weight(a, b, Kind.HOLES, 3)
                + weight(a, b, Kind.OUTLINE, 4)
                + weight(a, b, Kind.SIZES, 2)
                + weight(a, b, Kind.WORDS, 1);
        double much = weights == 0 ? 0 : (3 * holes + 4 * outline + 2 * sizes + words) / weights;
        List<String> says = new ArrayList<>();
        boolean pattern = a.of(Kind.HOLES).size() >= FEW;
        if (pattern && holes >= SAME) says.add("same hole pattern");
        else if (pattern && holes >= LIKE) says.add("holes alike");
        boolean drawn = a.of(Kind.OUTLINE).size() >= FEW;
        if (drawn && outline >= SAME) says.add("same outline");
        else if (drawn && outline >= LIKE) says.add("outline alike");
        if (!says.isEmpty()) {
            if (sizes >= SAME) says.add("same sizes");
            else if (sizes < LIKE) says.add("other sizes");
        }
        if (words >= SAME) says.add("same notes");
        return new Alike(much, says);
    }

    private static double share(Traits a, Traits b, Kind kind) {
        return Traits.shared(a.of(kind), b.of(kind));
    }

    private static double weight(Traits a, Traits b, Kind kind, double weight) {
        return a.of(kind).isEmpty() && b.of(kind).isEmpty() ? 0 : weight;
    }
}
