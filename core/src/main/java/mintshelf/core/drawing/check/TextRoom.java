package mintshelf.core.drawing.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * Which level texts of a sheet meet another one, and which leave the cell of a table that they begin in. What a font really takes is not
 * known, so letters count as narrow ones here: what is told is so in any font.
 */
final class TextRoom {
    /** What a letter takes at least, with its gap, in its height: the narrow letters of ISO 3098-1, type A. */
    private static final double NARROW = 0.55;
    /** How far a table's cell reaches over and under its text, in heights of letters. */
    private static final double HIGHEST_CELL = 8;

    private static final int FIELDS = 64;

    /** A text with the box of its letters; the level lines and the uprights of the sheet: place, from, to. */
    private record Level(Primitive.Text text, Box box) {}

    private final List<Level> texts = new ArrayList<>();
    private final Bands levels = new Bands();
    private final Bands uprights = new Bands();

    private TextRoom() {}

    /** Looks at what is shown. O(primitives). */
    static TextRoom of(Scene scene) {
        TextRoom room = new TextRoom();
        for (Primitive p : scene.primitives()) {
            if (!scene.layers().getOrDefault(p.style().layer(), true)) continue;
            if (p instanceof Primitive.Text text
                    && text.angle() == 0
                    && !text.mirrored()
                    && !text.text().isBlank()) {
                room.texts.add(new Level(text, box(text)));
            } else if (p instanceof Primitive.Polyline line) {
                room.lines(line);
            }
        }
        room.texts.sort(Comparator.comparingDouble((Level l) -> l.box().minX())
                .thenComparingDouble(l -> l.box().minY()));
        room.levels.ready();
        room.uprights.ready();
        return room;
    }

    private static Box box(Primitive.Text text) {
        String shown = text.text().strip();
        double wide = shown.codePointCount(0, shown.length()) * text.height() * NARROW * text.width();
        double left = text.x() - (text.across() == 0 ? 0 : text.across() == 1 ? wide / 2 : wide);
        double low = text.y() - (text.up() == 3 ? text.height() : text.up() == 2 ? text.height() / 2 : 0);
        return new Box(left, low, left + wide, low + text.height());
    }

    private void lines(Primitive.Polyline line) {
        double[] p = line.points();
        int n = p.length / 2;
        for (int i = 0; i + 1 < n + (line.closed() ? 1 : 0); i++) {
            int a = 2 * i;
            int b = 2 * ((i + 1) % n);
            double dx = Math.abs(p[b] - p[a]);
            double dy = Math.abs(p[b + 1] - p[a + 1]);
            if (dy > 0 && dx <= dy * 0.001) uprights.add(p[a], p[a + 1], p[b + 1]);
            else if (dx > 0 && dy <= dx * 0.001) levels.add(p[a + 1], p[a], p[b]);
        }
    }

    /** The texts that stand over a part of another one, from the left. A text that is drawn twice in one place is another rule's. */
    List<Primitive.Text> meeting() {
        Map<Long, List<Level>> near = new HashMap<>();
        double field = texts.stream().mapToDouble(l -> l.text().height()).max().orElse(1) * 2;
        Set<Primitive.Text> meeting = new LinkedHashSet<>();
        for (Level level : texts) {
            Set<Level> seen = new HashSet<>();
            for (long key : fields(level.box(), field)) {
                List<Level> there = near.computeIfAbsent(key, k -> new ArrayList<>());
                for (Level other : there) if (seen.add(other) && meets(level, other)) meeting.add(level.text());
                if (there.size() < FIELDS) there.add(level);
            }
        }
        return List.copyOf(meeting);
    }

    private static long[] fields(Box box, double field) {
        long left = (long) Math.floor(box.minX() / field);
        long right = Math.min(left + FIELDS, (long) Math.floor(box.maxX() / field));
        long low = (long) Math.floor(box.minY() / field);
        long high = Math.min(low + 1, (long) Math.floor(box.maxY() / field));
        long[] keys = new long[(int) ((right - left + 1) * (high - low + 1))];
        int n = 0;
        for (long x = left; x <= right; x++) for (long y = low; y <= high; y++) keys[n++] = x * 1_000_003 + y;
        return keys;
    }

    private static boolean meets(Level a, Level b) {
        double height = Math.min(a.text().height(), b.text().height());
        double across = Math.min(a.box().maxX(), b.box().maxX())
                - Math.max(a.box().minX(), b.box().minX());
        double up = Math.min(a.box().maxY(), b.box().maxY())
                - Math.max(a.box().minY(), b.box().minY());
        if (across < height * 0.5 || up < height * 0.3) return false;
        boolean same = a.text().text().equals(b.text().text())
                && Math.abs(a.box().minX() - b.box().minX()) < height * 0.1
                && Math.abs(a.box().minY() - b.box().minY()) < height * 0.1;
        return !same;
    }

    /**
     * The texts that reach over an upright side of the cell that they begin in. A cell is closed above and below the text, and the
     * side goes from the one line to the other.
     */
    List<Primitive.Text> leaving() {
        List<Primitive.Text> leaving = new ArrayList<>();
        for (Level level : texts) if (leaves(level)) leaving.add(level.text());
        return leaving;
    }

    private boolean leaves(Level level) {
        Box box = level.box();
        double height = level.text().height();
        double x = Math.max(box.minX(), Math.min(box.maxX(), level.text().x()));
        double reach = height * HIGHEST_CELL;
        double foot = levels.nearest(box.minY() + height * 0.1, x, -reach);
        double head = levels.nearest(box.maxY() - height * 0.1, x, reach);
        if (Double.isNaN(foot) || Double.isNaN(head)) return false;
        double off = height * 0.4;
        return uprights.between(box.minX() + off, box.maxX() - off, foot + height * 0.2, head - height * 0.2);
    }

    /** Lines of one direction, by their place across it. */
    private static final class Bands {
        private final List<double[]> lines = new ArrayList<>();

        void add(double at, double a, double b) {
            lines.add(new double[] {at, Math.min(a, b), Math.max(a, b)});
        }

        void ready() {
            lines.sort(Comparator.comparingDouble(l -> l[0]));
        }

        private int from(double at) {
            int low = 0;
            int high = lines.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (lines.get(middle)[0] < at) low = middle + 1;
                else high = middle;
            }
            return low;
        }

        /** The place of the next line from {@code at} within {@code reach} that goes over {@code along}; no number where none does. */
        double nearest(double at, double along, double reach) {
            int step = reach > 0 ? 1 : -1;
            for (int i = reach > 0 ? from(at) : from(at) - 1; i >= 0 && i < lines.size(); i += step) {
                double[] line = lines.get(i);
                if (Math.abs(line[0] - at) > Math.abs(reach)) break;
                if (line[1] <= along && line[2] >= along) return line[0];
            }
            return Double.NaN;
        }

        /** Whether a line between two places goes from {@code low} to {@code high} at least. */
        boolean between(double from, double to, double low, double high) {
            for (int i = from(from); i < lines.size() && lines.get(i)[0] <= to; i++) {
                if (lines.get(i)[1] <= low && lines.get(i)[2] >= high) return true;
            }
            return false;
        }
    }
}
