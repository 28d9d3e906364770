package mintshelf.core.model.shape;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Numbers;

/**
 * What some faces of a part make together, as people speak of it.
 *
 * @param through of a hole, a slot and an opening: whether it goes through
 * @param at on its axis where it opens, else its middle; in millimetres
 * @param axis its direction
 * @param faces which faces of the body make it, by their places
 */
public record Feature(Kind kind, boolean through, Map<Size, Double> sizes, Vec at, Vec axis, List<Integer> faces) {
    public Feature {
        sizes = new EnumMap<>(sizes);
        faces = List.copyOf(faces);
    }

    /** What it is. */
    public enum Kind {
        HOLE("hole", "holes"),
        SLOT("slot", "slots"),
        POCKET("pocket", "pockets"),
        OPENING("opening", "openings"),
        BOSS("boss", "bosses"),
        PAD("pad", "pads"),
        ROUND("round", "rounds"),
        RING("ring", "rings"),
        FILLET("fillet", "fillets"),
        CHAMFER("chamfer", "chamfers");

        private final String one;
        private final String many;

        Kind(String one, String many) {
            this.one = one;
            this.many = many;
        }

        /** "hole", "4 holes". */
        public String words(int n) {
            return n == 1 ? one : n + " " + many;
        }

        /** Whether two of them at one axis are the same thing, however high they stand on it. */
        public boolean isOnAxis() {
            return this == HOLE || this == BOSS || this == ROUND || this == RING;
        }
    }

    /** What is measured of it, with the word before and behind the number. */
    public enum Size {
        DIAMETER("⌀ ", ""),
        WIDTH("", " wide"),
        LENGTH("", " long"),
        DEPTH("", " deep"),
        HEIGHT("", " high"),
        RADIUS("R ", ""),
        SECTION("section ⌀ ", ""),
        LEG("", ""),
        BORE_DIAMETER("counterbore ⌀ ", ""),
        BORE_DEPTH("counterbore ", " deep"),
        SINK_DIAMETER("countersink ⌀ ", ""),
        SINK_ANGLE("countersink ", "°");

        private final String before;
        private final String after;

        Size(String before, String after) {
            this.before = before;
            this.after = after;
        }

        /** "⌀ 5.5", "10 deep". */
        public String says(double value) {
            return before + number(value) + after;
        }

        /** "⌀ 5.5 → ⌀ 6.6", "10 → 12 deep". */
        public String says(double old, double now) {
            if (before.equals("⌀ ") || before.equals("R ")) return says(old) + " → " + says(now);
            return before + number(old) + " → " + number(now) + after;
        }
    }

    /** A length as it is told: three places behind the point. */
    public static String number(double value) {
        return Numbers.plain(Math.rint(value * 1000) / 1000);
    }

    /** A place as it is told: "(12, 40, 0)". */
    public static String place(Vec at) {
        return "(" + number(at.x()) + ", " + number(at.y()) + ", " + number(at.z()) + ")";
    }

    public double size(Size size) {
        return sizes.getOrDefault(size, 0.0);
    }

    /** Its sizes in words: "⌀ 5.5, through". */
    public String measures() {
        StringBuilder says = new StringBuilder();
        for (Map.Entry<Size, Double> one : sizes.entrySet()) {
            if (says.length() > 0) says.append(", ");
            says.append(one.getKey().says(one.getValue()));
        }
        if (through && kind == Kind.HOLE) says.append(", through");
        return says.toString();
    }

    /** Whether both measure the same. */
    public boolean measuresLike(Feature o, double near) {
        if (kind != o.kind || through != o.through || !sizes.keySet().equals(o.sizes.keySet())) return false;
        return sizes.entrySet().stream().allMatch(e -> Math.abs(e.getValue() - o.size(e.getKey())) <= near);
    }

    /** Whether both stand at the same place; of what turns about an axis, on the same axis. */
    public boolean standsLike(Feature o, double near) {
        boolean line = kind.isOnAxis() || kind == Kind.SLOT || kind == Kind.OPENING;
        if (!line) return at.distance(o.at) <= near;
        Vec d = axis.upward();
        return d.distance(o.axis.upward()) <= 1e-4 && at.minus(o.at).across(d).length() <= near;
    }
}
