package mintshelf.core.drawing.compare;

import java.util.List;
import mintshelf.core.drawing.Box;

/**
 * What changed between two sheets. Always: old = same + changed + shifted + removed, and now = same + changed + shifted + added.
 *
 * @param old how many primitives the old sheet draws
 * @param now how many the new one draws
 * @param differences in the order of reading: from the top left
 */
public record Comparison(
        int old, int now, int same, int changed, int shifted, int removed, int added, List<Difference> differences) {
    public Comparison {
        differences = List.copyOf(differences);
    }

    /** What a difference is. */
    public enum Kind {
        CHANGED,
        SHIFTED,
        ONLY_IN_OLD,
        ONLY_IN_NEW;

        /** As screens say it. */
        public String says() {
            return switch (this) {
                case CHANGED -> "changed";
                case SHIFTED -> "shifted";
                case ONLY_IN_OLD -> "only in old";
                case ONLY_IN_NEW -> "only in new";
            };
        }
    }

    /**
     * Differing primitives that lie together.
     *
     * @param number from 1
     * @param box around them on both sheets
     * @param zone of the sheet (ISO 5457), such as C4; empty where the drawing is no sheet of a known format
     * @param says what changed, in words
     * @param clouded whether the new sheet marks it with a revision cloud
     * @param form whether it lies in a filled-in form of the sheet, such as its title block, which nobody clouds
     * @param olds which primitives of the old sheet, by their place in its scene
     * @param nows which of the new one
     */
    public record Difference(
            int number,
            Kind kind,
            Box box,
            String zone,
            String says,
            boolean clouded,
            boolean form,
            List<Integer> olds,
            List<Integer> nows) {
        public Difference {
            olds = List.copyOf(olds);
            nows = List.copyOf(nows);
        }

        /** Whether a cloud should mark it and none does. */
        public boolean isUnmarked() {
            return !clouded && !form;
        }
    }

    /** The first differences in a few words each, with their zones. */
    public List<String> chips() {
        return differences.stream()
                .limit(4)
                .map(d -> (d.zone().isEmpty() ? "" : d.zone() + " ") + d.says())
                .toList();
    }

    /** How many differences the new sheet should mark with a cloud and does not. */
    public int unclouded() {
        return (int) differences.stream().filter(Difference::isUnmarked).count();
    }

    public boolean isEmpty() {
        return same == old && same == now;
    }
}
