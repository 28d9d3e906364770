package mintshelf.core.drawing.titleblock;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableMap;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.RowBlock;
import mintshelf.core.drawing.dxf.SheetContent;
import mintshelf.core.drawing.dxf.SheetContent.Label;
import mintshelf.core.drawing.dxf.SheetContent.Stroke;

/**
 * A revision table that somebody drew by hand, of lines and texts (ASME Y14.35, clause 6, says what its columns are): a heading row between
 * rules, of which cells say “Rev.”, “Description” and one more of the usual words, and rows above or below it between the same uprights. What
 * is ruled otherwise, or lies in a block, is not taken for one. O(bytes + rules × headings).
 *
 * @param rows what it says by {@link RevisionBlock#FACTS}, the oldest revision first; what goes on below a revision is joined to it
 * @param box in the sheet's units
 * @param upwards whether its heading stands lowest
 * @param entities the texts and rules that it is made of, in the order of the file; a rule that something beside the table ends on is not its own
 */
public record HandTable(List<Map<String, String>> rows, Box box, boolean upwards, List<Place> entities) {
    private static final Map<String, String> HEADINGS = headings();
    private static final int MOST_CANDIDATES = 12;
    private static final int MOST_TRIES = 64;
    private static final int MOST_RULES = 3000;
    private static final int MOST_ROWS = 100;
    /** Part of the heading's height that lines may miss each other by. */
    private static final double MISS = 0.06;

    private static Map<String, String> headings() {
        Map<String, String> headings = new LinkedHashMap<>();
        for (String w : List.of("rev", "revision", "index", "issue", "ltr", "letter")) headings.put(w, "revision");
        headings.put("zone", "zone");
        for (String w : List.of("description", "change", "changes", "alteration", "modification", "what changed")) {
            headings.put(w, "description");
        }
        headings.put("date", "date");
        for (String w : List.of("by", "name", "drawn", "drawn by", "changed by", "drn")) headings.put(w, "by");
        for (String w : List.of("approved", "approved by", "appr", "appd", "app", "checked", "checked by", "chk")) {
            headings.put(w, "approved");
        }
        for (String w : List.of("order", "change order", "co", "eco", "ecn", "dcn", "change no", "note no")) {
            headings.put(w, "order");
        }
        return headings;
    }

    private static Optional<String> heading(String text) {
        return Optional.ofNullable(HEADINGS.get(
                Texts.key(text).replaceAll("[.:’']", "").replaceAll("\\s+", " ").strip()));
    }

    /** The table of a sheet; nothing where there is none. */
    public static Optional<HandTable> of(DxfDrawing drawing) {
        List<Label> labels = SheetContent.labels(drawing);
        List<Label> candidates = labels.stream()
                .filter(l -> heading(l.value()).filter("revision"::equals).isPresent())
                .limit(MOST_CANDIDATES)
                .toList();
        if (candidates.isEmpty()) return Optional.empty();
        Ruling ruling = new Ruling(SheetContent.strokes(drawing));
        return candidates.stream()
                .flatMap(c -> ruling.headingRow(c, labels).stream())
                .flatMap(head -> ruling.table(head, labels).stream())
                .findFirst();
    }

    /** A cell of the heading, from left to right. */
    private record Column(String fact, double left, double right) {}

    private record Head(List<Column> columns, double low, double high) {
        double left() {
            return columns.get(0).left();
        }

        double right() {
            return columns.get(columns.size() - 1).right();
        }

        double miss() {
            return (high - low) * MISS;
        }
    }

    /** The lines of a sheet that run along it or up it. */
    private static final class Ruling {
        /** By where they run: a drawing may have a million. */
        private final NavigableMap<Double, List<Stroke>> level = new TreeMap<>();

        private final NavigableMap<Double, List<Stroke>> upright = new TreeMap<>();
        private final List<Stroke> all;

        Ruling(List<Stroke> all) {
            this.all = all;
            for (Stroke s : all) {
                double length = Math.hypot(s.x2() - s.x1(), s.y2() - s.y1());
                if (Math.abs(s.y2() - s.y1()) < length * 1e-4) add(level, s.y1(), s);
                else if (Math.abs(s.x2() - s.x1()) < length * 1e-4) add(upright, s.x1(), s);
            }
        }

        private static void add(Map<Double, List<Stroke>> to, double at, Stroke s) {
            to.computeIfAbsent(at, k -> new ArrayList<>()).add(s);
        }

        private static Stream<Stroke> about(NavigableMap<Double, List<Stroke>> of, double at, double miss) {
            return of.subMap(at - miss, true, at + miss, true).values().stream().flatMap(List::stream);
        }

        /** The nearest height of a list at which a rule runs over a place; infinite where none does. */
        private static double over(Collection<List<Stroke>> from, double x, double none) {
            return from.stream()
                    .flatMap(List::stream)
                    .filter(s -> covers(s.x1(), s.x2(), x, x, 0))
                    .mapToDouble(Stroke::y1)
                    .findFirst()
                    .orElse(none);
        }

        private static boolean covers(double a, double b, double from, double to, double miss) {
            return Math.min(a, b) <= from + miss && Math.max(a, b) >= to - miss;
        }

        /** The row of headings about a text that could be one. */
        Optional<Head> headingRow(Label rev, List<Label> labels) {
            double low = over(level.headMap(rev.y(), true).descendingMap().values(), rev.x(), Double.NEGATIVE_INFINITY);
            double high = over(level.tailMap(rev.y(), false).values(), rev.x(), Double.POSITIVE_INFINITY);
            if (!(high - low < Double.POSITIVE_INFINITY) || high <= low) return Optional.empty();
            double miss = (high - low) * MISS;
            TreeSet<Double> xs = new TreeSet<>();
            upright.forEach((x, there) -> {
                boolean runs = there.stream().anyMatch(s -> covers(s.y1(), s.y2(), low, high, miss));
                if (runs && near(xs, x, miss).isEmpty()) xs.add(x);
            });
            Double left = xs.floor(rev.x());
            Double right = xs.higher(rev.x());
            List<Column> columns = new ArrayList<>();
            for (Double a = left, b = right; a != null && b != null; b = a, a = xs.lower(a)) {
                Optional<Column> column = column(a, b, low, high, labels);
                if (column.isEmpty()) break;
                columns.add(0, column.get());
            }
            if (right != null && !columns.isEmpty()) {
                for (Double a = right, b = xs.higher(right); b != null; a = b, b = xs.higher(b)) {
                    Optional<Column> column = column(a, b, low, high, labels);
                    if (column.isEmpty()) break;
                    columns.add(column.get());
                }
            }
            return isOne(columns) ? Optional.of(new Head(columns, low, high)) : Optional.empty();
        }

        private static Optional<Double> near(NavigableSet<Double> xs, double x, double miss) {
            return Optional.ofNullable(xs.ceiling(x - miss)).filter(n -> n <= x + miss);
        }

        /** What the heading of a cell is for; nothing where it says none of the words. A second “Revision” is what was revised. */
        private static Optional<Column> column(double left, double right, double low, double high, List<Label> labels) {
            String said = inside(labels, left, right, low, high).stream()
                    .map(Label::value)
                    .collect(Collectors.joining(" "));
            return heading(said).map(fact -> new Column(fact, left, right));
        }

        private static boolean isOne(List<Column> columns) {
            List<String> others = columns.stream()
                    .map(Column::fact)
                    .filter(f -> !f.equals("revision"))
                    .toList();
            int labels = columns.size() - others.size();
            boolean words = others.contains("description") ? labels == 1 : labels == 2;
            return words && columns.size() >= 3 && new HashSet<>(others).size() == others.size();
        }

        /** The table of a heading with the rows above or below it. */
        Optional<HandTable> table(Head head, List<Label> all) {
            List<Label> labels = all.stream()
                    .filter(l -> l.x() >= head.left() && l.x() <= head.right())
                    .toList();
            List<double[]> above = rows(head, true);
            List<double[]> below = rows(head, false);
            List<Map<String, String>> up = read(head, above, labels);
            List<Map<String, String>> down = read(head, below, labels);
            boolean upwards = up.size() > down.size();
            List<Map<String, String>> said = upwards ? up : down;
            if (said.isEmpty()) return Optional.empty();
            List<double[]> bands = upwards ? above : below;
            double end = bands.get(bands.size() - 1)[upwards ? 1 : 0];
            Box box = upwards
                    ? new Box(head.left(), head.low(), head.right(), end)
                    : new Box(head.left(), end, head.right(), head.high());
            List<Place> own = own(box, head.miss(), labels);
            return own.isEmpty() ? Optional.empty() : Optional.of(new HandTable(said, box, upwards, own));
        }

        /** The rows beyond the heading as long as rules and all uprights go on, from the heading on: foot and top of each. */
        private List<double[]> rows(Head head, boolean up) {
            List<double[]> rows = new ArrayList<>();
            double height = head.high() - head.low();
            double at = up ? head.high() : head.low();
            while (rows.size() < MOST_ROWS) {
                Optional<Double> next = next(at, up, height, head);
                if (next.isEmpty()) break;
                double low = Math.min(at, next.get());
                double high = Math.max(at, next.get());
                boolean uprights = head.columns().stream().allMatch(c -> isUpright(c.left(), low, high, head.miss()))
                        && isUpright(head.right(), low, high, head.miss());
                if (!uprights) break;
                rows.add(new double[] {low, high});
                at = next.get();
            }
            return rows;
        }

        /** Where the next rule over the whole width runs, on from a height. */
        private Optional<Double> next(double from, boolean up, double height, Head head) {
            Collection<Double> ys = up
                    ? level.subMap(from + height * 0.3, false, from + height * 4, false)
                            .keySet()
                    : level.subMap(from - height * 4, false, from - height * 0.3, false)
                            .descendingKeySet();
            double tried = Double.NaN;
            int tries = 0;
            for (double y : ys) {
                if (Math.abs(y - tried) < head.miss()) continue;
                if (isRuled(y, head)) return Optional.of(y);
                tried = y;
                if (++tries == MOST_TRIES) break;
            }
            return Optional.empty();
        }

        /** Whether rules cover the whole width at a height, of one piece or of several. */
        private boolean isRuled(double y, Head head) {
            double reached = head.left();
            List<Stroke> there = about(level, y, head.miss())
                    .sorted(Comparator.comparingDouble(s -> Math.min(s.x1(), s.x2())))
                    .toList();
            for (Stroke s : there) {
                if (Math.min(s.x1(), s.x2()) <= reached + head.miss())
                    reached = Math.max(reached, Math.max(s.x1(), s.x2()));
            }
            return reached >= head.right() - head.miss();
        }

        private boolean isUpright(double x, double low, double high, double miss) {
            double reached = low;
            List<Stroke> there = about(upright, x, miss)
                    .sorted(Comparator.comparingDouble(s -> Math.min(s.y1(), s.y2())))
                    .toList();
            for (Stroke s : there) {
                if (Math.min(s.y1(), s.y2()) <= reached + miss) reached = Math.max(reached, Math.max(s.y1(), s.y2()));
            }
            return reached >= high - miss;
        }

        private static List<Map<String, String>> read(Head head, List<double[]> bands, List<Label> labels) {
            List<double[]> downwards = new ArrayList<>(bands);
            downwards.sort(Comparator.comparingDouble(b -> -b[1]));
            List<Map<String, String>> rows = new ArrayList<>();
            for (double[] band : downwards) {
                Map<String, String> row = new LinkedHashMap<>();
                boolean known = false;
                for (Column column : head.columns()) {
                    String said = inside(labels, column.left(), column.right(), band[0], band[1]).stream()
                            .sorted(Comparator.comparingDouble(Label::y).reversed())
                            .map(Label::value)
                            .collect(Collectors.joining(" "))
                            .strip();
                    if (said.isEmpty()) continue;
                    // Of two columns headed “Revision” the first is the label, the other one the words.
                    String fact = column.fact().equals("revision") && known ? "description" : column.fact();
                    known |= column.fact().equals("revision");
                    row.merge(fact, said, (a, b) -> a + " " + b);
                }
                boolean goesOn = !row.isEmpty() && !row.containsKey("revision") && !rows.isEmpty();
                if (goesOn)
                    row.forEach((fact, said) -> rows.get(rows.size() - 1).merge(fact, said, (a, b) -> a + " " + b));
                else if (row.containsKey("revision")) rows.add(row);
            }
            if (isNewestFirst(rows)) Collections.reverse(rows);
            return rows;
        }

        private static boolean isNewestFirst(List<Map<String, String>> rows) {
            if (rows.size() < 2) return false;
            String first = rows.get(0).getOrDefault("revision", "").toUpperCase(Locale.ROOT);
            String last = rows.get(rows.size() - 1).getOrDefault("revision", "").toUpperCase(Locale.ROOT);
            return Comparator.comparingInt(String::length)
                            .thenComparing(Comparator.naturalOrder())
                            .compare(first, last)
                    > 0;
        }

        private static List<Label> inside(List<Label> labels, double left, double right, double low, double high) {
            return labels.stream()
                    .filter(l -> l.x() >= left && l.x() < right && l.y() >= low && l.y() < high)
                    .toList();
        }

        /** What lies within the box, but for rules on its edge that something outside ends on or lies on. */
        private List<Place> own(Box box, double miss, List<Label> labels) {
            Box wide = box.grown(miss);
            Set<Place> within = new LinkedHashSet<>();
            Set<Place> beyond = new HashSet<>();
            for (Stroke s : all) {
                if (wide.holds(Box.of(new double[] {s.x1(), s.y1(), s.x2(), s.y2()}))) within.add(s.entity());
                else beyond.add(s.entity());
            }
            // A polyline that leaves the table, such as a frame, is not its own.
            within.removeAll(beyond);
            // What nobody drew by hand is no table: it would take ages to be told apart.
            if (within.size() > MOST_RULES) return List.of();
            List<Stroke> around = all.stream()
                    .filter(s -> beyond.contains(s.entity()))
                    .filter(s -> wide.touches(Box.of(new double[] {s.x1(), s.y1(), s.x2(), s.y2()})))
                    .collect(Collectors.toCollection(ArrayList::new));
            for (Stroke s : all) {
                if (within.contains(s.entity()) && isOnEdge(s, box, miss) && isShared(s, around, miss)) {
                    within.remove(s.entity());
                    around.add(s);
                }
            }
            List<Place> own = new ArrayList<>(within);
            labels.stream()
                    .filter(l ->
                            l.x() >= box.minX() && l.x() <= box.maxX() && l.y() >= box.minY() && l.y() <= box.maxY())
                    .map(Label::entity)
                    .forEach(own::add);
            own.sort(Comparator.comparingInt(Place::from));
            return own;
        }

        private static boolean isOnEdge(Stroke s, Box box, double miss) {
            boolean level = Math.abs(s.y1() - s.y2()) <= miss;
            return level
                    ? Math.min(Math.abs(s.y1() - box.minY()), Math.abs(s.y1() - box.maxY())) <= miss
                    : Math.min(Math.abs(s.x1() - box.minX()), Math.abs(s.x1() - box.maxX())) <= miss;
        }

        /** Whether a line that is not the table's own ends on this one; at the end of an upright it is the neighbour's own corner. */
        private static boolean isShared(Stroke s, List<Stroke> around, double miss) {
            boolean level = Math.abs(s.y1() - s.y2()) <= miss;
            Box line = Box.of(new double[] {s.x1(), s.y1(), s.x2(), s.y2()});
            Box on = level
                    ? line.grown(miss)
                    : new Box(line.minX() - miss, line.minY() + miss, line.maxX() + miss, line.maxY() - miss);
            return around.stream()
                    .anyMatch(o -> on.touches(Box.of(new double[] {o.x1(), o.y1()}))
                            || on.touches(Box.of(new double[] {o.x2(), o.y2()})));
        }
    }

    /**
     * Where a block stands that takes the table's place: with the end that it grows from where the table began, and with that side on the table's
     * which is nearer to the sheet's edge. One that grows the other way round than the table stands where it usually would: it would run off the sheet.
     */
    public RowBlock.Shape place(RowBlock.Shape usual) {
        if (usual.upwards() != upwards) return usual;
        double width =
                usual.columns().stream().mapToDouble(RowBlock.Column::width).sum();
        boolean right = box.maxX() >= usual.x() + width / 2;
        return new RowBlock.Shape(
                usual.block(),
                usual.columns(),
                usual.rowHeight(),
                usual.textHeight(),
                upwards,
                right ? box.maxX() - width : box.minX(),
                upwards ? box.minY() : box.maxY(),
                usual.layer());
    }
}
