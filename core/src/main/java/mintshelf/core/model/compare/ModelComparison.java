package mintshelf.core.model.compare;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Numbers;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Feature;
import mintshelf.core.model.shape.Vec;

/**
 * What changed between two models. Always: old = same + changed + removed, and now = same + changed + added.
 *
 * @param old faces of the old model, {@code now} of the new one
 * @param changed faces that lie, end or measure otherwise
 * @param differences those of sizes first, then what is gone, what is new
 * @param unsaid faces that differ and for which there are no words
 * @param unread faces of either that could not be read
 */
public record ModelComparison(
        int old,
        int now,
        int same,
        int changed,
        int removed,
        int added,
        List<Difference> differences,
        int unsaid,
        int unread,
        Measures before,
        Measures after) {
    public ModelComparison {
        differences = List.copyOf(differences);
    }

    /** What a difference is. */
    public enum Kind {
        CHANGED("changed"),
        MOVED("moved"),
        ONLY_IN_OLD("only in old"),
        ONLY_IN_NEW("only in new");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A difference in words.
     *
     * @param number from 1
     * @param says "4 holes ⌀ 5.5 → ⌀ 6.6"
     * @param box around what differs, in both; in millimetres
     */
    public record Difference(int number, Kind kind, String says, Extent box) {}

    /**
     * @param extent how far the model reaches
     * @param volume in cubic millimetres; nothing where faces are of free form
     * @param mass as the file says it of its product, with its unit
     */
    public record Measures(Extent extent, Optional<Double> volume, Optional<String> mass) {}

    public boolean isEmpty() {
        return differences.isEmpty() && same == old && same == now;
    }

    /** In a few words: "3 differences", "no difference". */
    public String summary() {
        int n = differences.size();
        if (n == 0) return unsaid == 0 ? "no difference" : "faces differ";
        return n == 1 ? "1 difference" : n + " differences";
    }

    /** The volumes in cubic centimetres: "76.04 → 75.9 cm³", or one where both are the same; "?" for what is not known. */
    public String volumes() {
        return fromTo(volume(before), volume(after)) + " cm³";
    }

    /** The masses as both files say them: "0.61 kg → 0.6 kg"; empty where none does. */
    public String masses() {
        if (before.mass().isEmpty() && after.mass().isEmpty()) return "";
        return fromTo(before.mass().orElse("?"), after.mass().orElse("?"));
    }

    private static String volume(Measures measures) {
        return measures.volume()
                .map(v -> Numbers.plain(Math.rint(v / 10) / 100))
                .orElse("?");
    }

    /** How far the model reaches: "120 × 80 × 8 → 120 × 80 × 10 mm". */
    public String outside() {
        return fromTo(sizes(before.extent().size()), sizes(after.extent().size())) + " mm";
    }

    private static String sizes(Vec size) {
        return Feature.number(size.x()) + " × " + Feature.number(size.y()) + " × " + Feature.number(size.z());
    }

    private static String fromTo(String was, String is) {
        return was.equals(is) ? is : was + " → " + is;
    }
}
