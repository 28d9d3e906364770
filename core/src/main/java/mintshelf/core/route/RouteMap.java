package mintshelf.core.route;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * The picture of a route, drawn like a plan of tram lines: the usual way is a straight line with its stops as cross-bars; shorter ways
 * run above it, ways back below, ends branch off. In picture units from the upper left corner.
 *
 * <p>Layered: a stop's column is one behind the latest stop that leads to it along the usual way, its row the first free one; lines
 * that pass stops by take lanes, the shortest nearest to the line, so that none runs through a stop's name. Starting the next revision is
 * no line of the map. O(moves² + stops²).
 *
 * @param byActs stops that no move leads to and no line shows: reached by acts, such as dropping
 */
public record RouteMap(int width, int height, List<Stop> stops, List<Line> lines, List<Stage> byActs) {
    private static final int STEP = 172;
    private static final int LEFT = 84;
    private static final int ROW = 66;
    private static final int LANE = 40;

    public RouteMap {
        stops = List.copyOf(stops);
        lines = List.copyOf(lines);
        byActs = List.copyOf(byActs);
    }

    /** A stop: a cross-bar, a double one where nothing follows. */
    public record Stop(Stage stage, int x, int y, boolean last) {}

    /** What a line is. */
    public enum Kind {
        USUAL,
        SHORTER,
        BACK,
        END,
        /** By an act that is no move: what supersedes. */
        ACT
    }

    /**
     * A move's line.
     *
     * @param move empty for one that an act makes
     * @param path as in the d of an SVG path
     * @param arrow where the arrow stands half way
     * @param leftwards whether it points to the left
     * @param gates where a bar stands for each demand
     */
    public record Line(
            Optional<Move> move,
            Kind kind,
            String path,
            Point arrow,
            boolean leftwards,
            List<Point> gates,
            Point label) {
        public Line {
            gates = List.copyOf(gates);
        }
    }

    public record Point(int x, int y) {}

    public static RouteMap of(Route route) {
        return new Layout(route).draw();
    }

    private static final class Layout {
        private final Route route;
        private final Map<String, Integer> column = new LinkedHashMap<>();
        private final Map<String, Integer> row = new HashMap<>();
        private final List<String> usual = new ArrayList<>();
        private int zero;

        Layout(Route route) {
            this.route = route;
        }

        RouteMap draw() {
            if (route.stages().isEmpty()) return new RouteMap(2 * LEFT, ROW, List.of(), List.of(), List.of());
            usualWay();
            branches();
            List<Drawn> drawn = lanes();
            int above = -row.values().stream().mapToInt(r -> r).min().orElse(0) * ROW;
            int below = row.values().stream().mapToInt(r -> r).max().orElse(0) * ROW;
            for (Drawn d : drawn) {
                above = Math.max(above, -d.y);
                below = Math.max(below, d.y);
            }
            zero = above + 52;
            int last = column.values().stream().mapToInt(c -> c).max().orElse(0);
            List<Stop> stops = new ArrayList<>();
            List<Stage> byActs = new ArrayList<>();
            for (Stage stage : route.stages()) {
                if (!column.containsKey(stage.code())) {
                    byActs.add(stage);
                    continue;
                }
                boolean end = route.from(stage.code()).isEmpty();
                stops.add(new Stop(stage, x(stage.code()), y(stage.code()), end));
            }
            List<Line> lines = new ArrayList<>();
            drawn.forEach(d -> lines.add(line(d)));
            superseding().ifPresent(lines::add);
            return new RouteMap(2 * LEFT + last * STEP, zero + below + 40, stops, lines, byActs);
        }

        /** From the first stop along the first move that leads on, up to where it is in force. */
        private void usualWay() {
            String at = route.firstStage().code();
            while (true) {
                usual.add(at);
                column.put(at, usual.size() - 1);
                row.put(at, 0);
                if (route.stage(at).stageClass() == StageClass.RELEASED) return;
                Optional<String> next = route.from(at).stream()
                        .map(Move::to)
                        .filter(to -> !column.containsKey(to))
                        .filter(to -> leadsOn(route.stage(to).stageClass()))
                        .findFirst();
                if (next.isEmpty()) return;
                at = next.get();
            }
        }

        private static boolean leadsOn(StageClass stageClass) {
            return stageClass.isPending() || stageClass == StageClass.RELEASED;
        }

        /** What is left: each behind the stop that leads to it, on the first free row of its side. */
        private void branches() {
            boolean more = true;
            while (more) {
                more = false;
                for (Stage stage : route.stages()) {
                    if (column.containsKey(stage.code())) continue;
                    Optional<Integer> behind = route.moves().stream()
                            .filter(m -> m.to().equals(stage.code()) && column.containsKey(m.from()))
                            .map(m -> column.getOrDefault(m.from(), 0))
                            .max(Comparator.naturalOrder());
                    if (behind.isEmpty() && stage.stageClass() == StageClass.SUPERSEDED) {
                        behind = released().map(r -> column.getOrDefault(r, 0));
                    }
                    if (behind.isEmpty()) continue;
                    place(stage, behind.get() + 1);
                    more = true;
                }
            }
        }

        private Optional<String> released() {
            return column.keySet().stream()
                    .filter(code -> route.stage(code).stageClass() == StageClass.RELEASED)
                    .findFirst();
        }

        private void place(Stage stage, int at) {
            boolean down = stage.stageClass() == StageClass.WITHDRAWN || stage.stageClass() == StageClass.CLOSED;
            int way = down ? 1 : -1;
            int free = way;
            while (isTaken(at, free)) free += way;
            column.put(stage.code(), at);
            row.put(stage.code(), free);
        }

        private boolean isTaken(int at, int on) {
            return column.entrySet().stream()
                    .anyMatch(c -> c.getValue() == at && row.getOrDefault(c.getKey(), 0) == on);
        }

        /** A move with the height of its lane above (negative) or below the usual way; 0 for a line that needs none. */
        private static final class Drawn {
            final Move move;
            final Kind kind;
            int y;

            Drawn(Move move, Kind kind) {
                this.move = move;
                this.kind = kind;
            }
        }

        private List<Drawn> lanes() {
            List<Drawn> all = new ArrayList<>();
            Set<String> straight = new HashSet<>();
            List<Drawn> above = new ArrayList<>();
            List<Drawn> below = new ArrayList<>();
            for (Move move : route.moves()) {
                Integer from = column.get(move.from());
                Integer to = column.get(move.to());
                if (from == null || to == null) continue;
                int rowFrom = row.getOrDefault(move.from(), 0);
                int rowTo = row.getOrDefault(move.to(), 0);
                Drawn drawn;
                if (to <= from) {
                    drawn = new Drawn(move, Kind.BACK);
                    below.add(drawn);
                } else if (rowFrom != rowTo && straight.add(move.from() + " " + move.to())) {
                    drawn = new Drawn(move, isEnd(move) ? Kind.END : Kind.SHORTER);
                } else if (rowFrom == rowTo && to == from + 1 && straight.add(move.from() + " " + move.to())) {
                    drawn = new Drawn(move, rowFrom == 0 ? Kind.USUAL : Kind.SHORTER);
                } else {
                    drawn = new Drawn(move, Kind.SHORTER);
                    above.add(drawn);
                }
                all.add(drawn);
            }
            stack(above, -1);
            stack(below, 1);
            return all;
        }

        private boolean isEnd(Move move) {
            StageClass stageClass = route.stage(move.to()).stageClass();
            return stageClass == StageClass.WITHDRAWN || stageClass == StageClass.CLOSED;
        }

        private int from(Move move) {
            return Math.min(column.getOrDefault(move.from(), 0), column.getOrDefault(move.to(), 0));
        }

        private int to(Move move) {
            return Math.max(column.getOrDefault(move.from(), 0), column.getOrDefault(move.to(), 0));
        }

        /** The shortest nearest; a lane lies outside the rows that it passes, and beside no other of its columns. */
        private void stack(List<Drawn> moves, int way) {
            List<Drawn> placed = new ArrayList<>();
            moves.stream()
                    .sorted(Comparator.comparingInt(d -> to(d.move) - from(d.move)))
                    .forEach(d -> {
                        int outermost = 0;
                        for (Map.Entry<String, Integer> c : column.entrySet()) {
                            if (c.getValue() >= from(d.move) && c.getValue() <= to(d.move)) {
                                outermost = Math.max(outermost, way * row.getOrDefault(c.getKey(), 0));
                            }
                        }
                        int y = outermost * ROW + (way < 0 ? 62 : 56);
                        boolean clear = false;
                        while (!clear) {
                            int at = y;
                            clear = placed.stream()
                                    .noneMatch(p -> Math.abs(way * p.y - at) < LANE
                                            && from(p.move) < to(d.move)
                                            && from(d.move) < to(p.move));
                            if (!clear) y += LANE;
                        }
                        d.y = way * y;
                        placed.add(d);
                    });
        }

        private int x(String code) {
            return LEFT + column.getOrDefault(code, 0) * STEP;
        }

        private int y(String code) {
            return zero + row.getOrDefault(code, 0) * ROW;
        }

        private Line line(Drawn d) {
            int x1 = x(d.move.from());
            int y1 = y(d.move.from());
            int x2 = x(d.move.to());
            int y2 = y(d.move.to());
            if (d.y != 0) return lane(d, x1, y1, x2, y2);
            if (y1 == y2) {
                String path = path("M%d %d H%d", x1, y1, x2);
                return line(d.move, d.kind, path, new Point((x1 + x2) / 2, y1), false, -12);
            }
            int rise = Math.abs(y2 - y1);
            int bend = Math.max(x1 + 14, x2 - rise - 24);
            int end = Math.min(bend + rise, x2);
            String path = path("M%d %d H%d L%d %d H%d", x1, y1, bend, end, y2, x2);
            // What it demands stands where it is still level; its words on the side that it climbs away from.
            List<Point> gates = new ArrayList<>();
            for (int i = 0; i < Math.min(d.move.gates().size(), 7); i++) gates.add(new Point(x1 + 18 + 7 * i, y1));
            Point middle = new Point((bend + end) / 2, (y1 + y2) / 2);
            Point says = new Point(middle.x() - 46, y2 > y1 ? middle.y() + 16 : middle.y() - 10);
            return new Line(Optional.of(d.move), d.kind, path, middle, false, gates, says);
        }

        /** Leaves and comes in at 45° above, straight down below, so that it cuts no name. */
        private Line lane(Drawn d, int x1, int y1, int x2, int y2) {
            int y = zero + d.y;
            Point middle = new Point((x1 + x2) / 2, y);
            if (d.kind == Kind.BACK) {
                int r = 10;
                int side = x2 < x1 ? -1 : 1;
                String path = path(
                        "M%d %d V%d Q%d %d %d %d H%d Q%d %d %d %d V%d",
                        x1, y1, y - r, x1, y, x1 + side * r, y, x2 - side * r, x2, y, x2, y - r, y2);
                return line(d.move, d.kind, path, middle, true, 18);
            }
            int rise1 = Math.min(y1 - y, (x2 - x1) / 2 - 10);
            int rise2 = Math.min(y2 - y, (x2 - x1) / 2 - 10);
            String path = path(
                    "M%d %d h8 L%d %d H%d L%d %d h8", x1, y1 - 8, x1 + 8 + rise1, y, x2 - 8 - rise2, x2 - 8, y2 - 8);
            return line(d.move, d.kind, path, middle, false, -10);
        }

        private static Line line(Move move, Kind kind, String path, Point middle, boolean leftwards, int label) {
            List<Point> gates = new ArrayList<>();
            int bars = Math.min(move.gates().size(), 7);
            for (int i = 0; i < bars; i++) {
                gates.add(new Point(middle.x() + (leftwards ? -1 : 1) * (15 + 7 * i), middle.y()));
            }
            Point says = new Point(middle.x(), middle.y() + label);
            return new Line(Optional.of(move), kind, path, middle, leftwards, gates, says);
        }

        private Optional<Line> superseding() {
            Optional<String> from = released();
            Optional<Stage> to = route.firstOf(StageClass.SUPERSEDED).filter(s -> column.containsKey(s.code()));
            if (from.isEmpty() || to.isEmpty()) return Optional.empty();
            boolean moved =
                    route.moves().stream().anyMatch(m -> m.to().equals(to.get().code()));
            if (moved) return Optional.empty();
            int x1 = x(from.get());
            int y1 = y(from.get());
            int x2 = x(to.get().code());
            int y2 = y(to.get().code());
            int rise = Math.abs(y1 - y2);
            int bend = x2 - rise - 24;
            String path = path("M%d %d H%d L%d %d H%d", x1, y1 - 8, bend, bend + rise - 8, y2, x2);
            Point middle = new Point(bend + rise / 2, (y1 + y2) / 2);
            return Optional.of(new Line(Optional.empty(), Kind.ACT, path, middle, false, List.of(), middle));
        }

        private static String path(String form, Object... numbers) {
            return String.format(Locale.ROOT, form, numbers);
        }
    }
}
