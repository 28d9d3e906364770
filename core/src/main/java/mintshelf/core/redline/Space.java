package mintshelf.core.redline;

import java.util.List;
import java.util.stream.Collectors;

/**
 * Where a mark stands on a model.
 *
 * @param picks what it marks: one of a note, two of a size
 * @param words where its words stand
 * @param eye from where its author looked
 */
public record Space(List<Picked> picks, Vector words, Eye eye) {
    public Space {
        picks = List.copyOf(picks);
    }

    /**
     * A view of a model, without perspective.
     *
     * @param target what is in the middle
     * @param height of what is seen, in millimetres
     */
    public record Eye(Vector at, Vector target, Vector up, double height) {
        boolean isSound() {
            return at.isPlace()
                    && target.isPlace()
                    && up.isPlace()
                    && up.length() > 0
                    && height > 0
                    && height < 1e7
                    && at.minus(target).length() > 0;
        }
    }

    boolean isSound() {
        return words.isPlace() && eye.isSound() && picks.stream().allMatch(Picked::isSound);
    }

    /** Whether models are marked with this tool. */
    public static boolean takes(Tool tool) {
        return picks(tool) > 0;
    }

    /** How many things a mark of this tool picks; 0 where it is drawn on no model. */
    static int picks(Tool tool) {
        return switch (tool) {
            case NOTE, ARROW_NOTE -> 1;
            case SIZE -> 2;
            default -> 0;
        };
    }

    /** What was picked, in words: "axis of Ø 9 to face". */
    public String said() {
        return picks.stream().map(Picked::words).collect(Collectors.joining(" to "));
    }
}
