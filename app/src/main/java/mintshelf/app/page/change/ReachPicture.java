package mintshelf.app.page.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import mintshelf.app.use.change.ReadImpact.Row;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Impact.Verdict;

/**
 * How far a change reaches as a picture: the lines left, level by level to the right what stands above, one box a number with a row for
 * each of its documents. What is too much for a level, or put away by a filter, is folded by its verdict.
 */
public record ReachPicture(List<Box> boxes, List<Edge> edges, int width, int height) {
    /** Boxes of a level that are drawn without being asked for. */
    static final int USUAL = 9;

    /** Boxes of a level that was opened. */
    static final int OPENED = 250;

    private static final int WIDE = 244;
    private static final int HEAD = 25;
    private static final int LINE = 19;
    private static final int ACROSS = 316;
    private static final int GAP = 12;
    private static final int REASONS = 8;

    /**
     * @param verdict the strongest of its rows
     * @param number of the document; what a fold says
     * @param level whose fold it is, so that it can be opened; below 0 for a number
     * @param row from the top of its level, for keys
     */
    public record Box(
            int x,
            int y,
            int height,
            String verdict,
            String number,
            String title,
            int level,
            int column,
            int row,
            boolean line,
            List<Text> rows) {}

    /** A document in its box. */
    public record Text(long id, String says, String verdict) {}

    public record Edge(String path, String verdict) {}

    /** What becomes one box. */
    private static final class Group {
        final String number;
        final String title;
        final List<Row> rows = new ArrayList<>();
        int level = Integer.MAX_VALUE;

        Group(Row row) {
            number = row.seen().document().number();
            title = row.seen().document().title();
        }

        boolean line() {
            return rows.stream().anyMatch(r -> r.node().line());
        }

        Verdict verdict() {
            return rows.stream()
                    .map(r -> r.node().verdict())
                    .max(Comparator.naturalOrder())
                    .orElseThrow();
        }
    }

    /**
     * @param shows which rows are drawn where there is room; lines always are
     * @param opened levels that were opened
     */
    static ReachPicture of(List<Row> all, Predicate<Row> shows, Set<Integer> opened) {
        Map<String, Group> groups = new LinkedHashMap<>();
        Map<Long, Group> byItem = new HashMap<>();
        for (Row row : all) {
            Group group = groups.computeIfAbsent(Texts.key(row.seen().document().number()), k -> new Group(row));
            group.rows.add(row);
            group.level = Math.min(group.level, row.node().level());
            byItem.put(row.seen().spine().id(), group);
        }
        Map<Integer, List<Group>> levels = new TreeMap<>();
        groups.values()
                .forEach(g ->
                        levels.computeIfAbsent(g.level, l -> new ArrayList<>()).add(g));
        Drawn drawn = new Drawn(byItem);
        int column = 0;
        for (Map.Entry<Integer, List<Group>> level : levels.entrySet()) {
            drawn.level(level.getKey(), column++, level.getValue(), shows, opened.contains(level.getKey()));
        }
        return drawn.picture(column);
    }

    static String css(Verdict verdict) {
        return verdict.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static final class Drawn {
        private final Map<Long, Group> byItem;
        private final Map<Group, Box> at = new HashMap<>();
        private final List<Box> boxes = new ArrayList<>();
        private int height;

        Drawn(Map<Long, Group> byItem) {
            this.byItem = byItem;
        }

        void level(int level, int column, List<Group> groups, Predicate<Row> shows, boolean opened) {
            groups.sort(Comparator.comparing((Group g) -> !g.line())
                    .thenComparing(Group::verdict, Comparator.reverseOrder())
                    .thenComparingDouble(this::pulled)
                    .thenComparing(g -> g.number));
            int room = opened ? OPENED : USUAL;
            Map<Verdict, List<Group>> folded = new TreeMap<>(Comparator.reverseOrder());
            int y = 0;
            int row = 0;
            for (Group group : groups) {
                boolean wanted = group.line() || group.rows.stream().anyMatch(shows);
                // A fold that holds one box takes as much room as the box.
                if (!wanted || (row >= room && groups.size() > room + 1)) {
                    folded.computeIfAbsent(group.verdict(), v -> new ArrayList<>())
                            .add(group);
                    continue;
                }
                int high = HEAD + LINE * group.rows.size() + 7;
                List<Text> texts = group.rows.stream()
                        .map(r -> new Text(
                                r.seen().spine().id(),
                                r.seen().spine().kindName() + ": "
                                        + r.node().verdict().words(),
                                css(r.node().verdict())))
                        .toList();
                Box box = new Box(
                        column * ACROSS,
                        y,
                        high,
                        css(group.verdict()),
                        group.number,
                        Texts.shorten(group.title, Math.max(4, 26 - group.number.length())),
                        -1,
                        column,
                        row++,
                        group.line(),
                        texts);
                boxes.add(box);
                at.put(group, box);
                y += high + GAP;
            }
            for (Map.Entry<Verdict, List<Group>> fold : folded.entrySet()) {
                int many = fold.getValue().size();
                Box box = new Box(
                        column * ACROSS,
                        y,
                        34,
                        css(fold.getKey()),
                        many + " more " + fold.getKey().words(many),
                        "",
                        level,
                        column,
                        row++,
                        false,
                        List.of());
                boxes.add(box);
                fold.getValue().forEach(g -> at.put(g, box));
                y += 34 + GAP;
            }
            height = Math.max(height, y);
        }

        /** Where those that make it so lie, so that lines cross seldom. */
        private double pulled(Group group) {
            return group.rows.stream()
                    .flatMap(r -> r.node().because().stream().limit(REASONS))
                    .map(byItem::get)
                    .map(g -> g == null ? null : at.get(g))
                    .filter(b -> b != null)
                    .mapToInt(b -> b.y() + b.height() / 2)
                    .average()
                    .orElse(0);
        }

        ReachPicture picture(int columns) {
            List<Edge> edges = new ArrayList<>();
            Set<String> drawn = new LinkedHashSet<>();
            byItem.values().stream().distinct().forEach(group -> {
                Box to = at.get(group);
                for (Row row : group.rows) {
                    for (long because :
                            row.node().because().stream().limit(REASONS).toList()) {
                        Group from = byItem.get(because);
                        Box box = from == null ? null : at.get(from);
                        if (box == null || to == null || box.column() == to.column()) continue;
                        Edge edge = edge(box, to);
                        if (drawn.add(edge.path())) edges.add(edge);
                    }
                }
            });
            return new ReachPicture(
                    boxes, edges, Math.max(0, (columns - 1) * ACROSS + WIDE), Math.max(0, height - GAP));
        }

        private static Edge edge(Box from, Box to) {
            int x1 = from.x() + WIDE;
            int y1 = from.y() + from.height() / 2;
            int x2 = to.x();
            int y2 = to.y() + to.height() / 2;
            int bend = Math.max(24, (x2 - x1) / 2);
            return new Edge(
                    "M" + x1 + " " + y1 + "C" + (x1 + bend) + " " + y1 + " " + (x2 - bend) + " " + y2 + " " + x2 + " "
                            + y2,
                    to.verdict());
        }
    }
}
