package mintshelf.app.page.release;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.release.ReleasePlan.Line;
import mintshelf.app.use.release.ReleasePlan.Verdict;
import mintshelf.core.base.Texts;
import mintshelf.core.structure.GraphLayout;
import mintshelf.core.structure.StructureGraph.Use;

/**
 * The structure of a plan as a picture: components left, what they stand in right of them, one box a number with a row for each of
 * its documents. Lines carry a bar for each document that is in the way.
 */
public record PlanPicture(List<Box> boxes, List<Edge> edges, int width, int height) {
    /** Boxes of one picture; a longer plan is read as a list. */
    static final int MOST = 48;

    /** Documents that stay and are drawn. */
    private static final int FINE = 10;

    private static final int WIDE = 250;
    private static final int HEAD = 26;
    private static final int ROW = 20;
    private static final int ACROSS = 330;
    private static final int GAP = 14;

    /**
     * A number with its documents.
     *
     * @param stand {@code stays}, {@code goes} or {@code blocked}
     */
    public record Box(int x, int y, int height, String number, String title, String stand, List<Row> rows) {
        /** Where the title begins: behind the number, whose letters are all as wide. */
        public int titleX() {
            return 22 + number.length() * 8;
        }
    }

    /** A document: its kind, its revision, what it does. */
    public record Row(long id, String kind, String revision, String says, String stand) {}

    /** @param bars how many demands are not met below */
    public record Edge(String path, String stand, String says, int x, int y, List<Integer> bars) {}

    /** A node of the layout: all documents of one number. */
    private static final class Node {
        final long id;
        final List<Row> rows = new ArrayList<>();
        final String number;
        final String title;
        int blocked;
        boolean moves;

        Node(Seen seen) {
            id = seen.spine().id();
            number = seen.document().number();
            title = seen.document().title();
        }

        String stand() {
            return blocked > 0 ? "blocked" : moves ? "goes" : "stays";
        }

        int height() {
            return HEAD + ROW * rows.size() + 8;
        }
    }

    /** Nothing for a plan of more boxes than are read at once, and for one alone. */
    static Optional<PlanPicture> of(ReleasePlan plan) {
        Map<String, Node> byNumber = new LinkedHashMap<>();
        Map<Long, Node> nodes = new HashMap<>();
        int place = 0;
        for (Line line : plan.lines()) {
            Node node = node(byNumber, nodes, line.seen());
            boolean moves = line.verdict() != Verdict.STAYS;
            if (moves) place++;
            node.moves |= moves;
            node.blocked += line.refusals().size();
            String what = line.verdict() == Verdict.BLOCKED
                    ? Texts.shorten(
                            line.refusals().get(0).code().equals("gate.held")
                                    ? "held by "
                                            + line.seen()
                                                    .document()
                                                    .holder()
                                                    .map(h -> first(h.name()))
                                                    .orElse("somebody")
                                    : line.verdict().words(),
                            22)
                    : line.verdict().words();
            node.rows.add(row(line.seen(), (moves ? place + ". " : "") + what, stand(line.verdict())));
        }
        // Beside many that are fine nobody would see what goes: then the page tells of them in a sentence.
        List<Seen> enough = plan.enough().size() > FINE ? List.of() : plan.enough();
        for (Seen seen : enough) node(byNumber, nodes, seen).rows.add(row(seen, "stays", "stays"));
        if (byNumber.size() < 2 || byNumber.size() > MOST) return Optional.empty();
        return Optional.of(drawn(List.copyOf(byNumber.values()), nodes, plan.uses()));
    }

    private static Node node(Map<String, Node> byNumber, Map<Long, Node> nodes, Seen seen) {
        Node node = byNumber.computeIfAbsent(Texts.key(seen.document().number()), k -> new Node(seen));
        nodes.put(seen.spine().id(), node);
        return node;
    }

    private static String first(String name) {
        int blank = name.indexOf(' ');
        return blank < 0 ? name : name.substring(0, blank);
    }

    private static String stand(Verdict verdict) {
        return switch (verdict) {
            case BLOCKED -> "blocked";
            case STAYS -> "stays";
            default -> "goes";
        };
    }

    private static Row row(Seen seen, String says, String stand) {
        String revision = stand.equals("stays")
                ? seen.document().released().map(r -> r.shown()).orElse("")
                : seen.current().shown() + " v" + seen.version();
        return new Row(seen.spine().id(), seen.spine().kindName(), revision, says, stand);
    }

    private static PlanPicture drawn(List<Node> all, Map<Long, Node> nodes, List<Use> uses) {
        List<Use> between = new ArrayList<>();
        Map<List<Long>, Integer> quantities = new LinkedHashMap<>();
        for (Use u : uses) {
            Node parent = nodes.get(u.parent());
            Node component = nodes.get(u.component());
            if (parent == null || component == null || parent == component) continue;
            between.add(new Use(parent.id, component.id, u.quantity(), u.captured()));
            quantities.merge(List.of(component.id, parent.id), u.quantity(), Math::max);
        }
        Map<Long, Node> byId = new HashMap<>();
        all.forEach(n -> byId.put(n.id, n));
        Map<Integer, Integer> heights = new HashMap<>();
        Map<Long, int[]> at = new HashMap<>();
        List<Box> boxes = new ArrayList<>();
        int width = 0;
        for (GraphLayout.Spot spot : GraphLayout.of(all.stream().map(n -> n.id).toList(), between)) {
            Node node = byId.get(spot.document());
            int x = spot.row() * ACROSS;
            int y = heights.getOrDefault(spot.row(), 0);
            heights.put(spot.row(), y + node.height() + GAP);
            at.put(node.id, new int[] {x, y});
            width = Math.max(width, x + WIDE);
            boxes.add(
                    new Box(x, y, node.height(), node.number, Texts.shorten(node.title, 18), node.stand(), node.rows));
        }
        List<Edge> edges = new ArrayList<>();
        quantities.forEach((ends, quantity) -> edges.add(edge(
                byId.get(ends.get(0)), at.get(ends.get(0)), byId.get(ends.get(1)), at.get(ends.get(1)), quantity)));
        int height = heights.values().stream().mapToInt(h -> h).max().orElse(0);
        return new PlanPicture(boxes, edges, width, height);
    }

    private static Edge edge(Node component, int[] from, Node parent, int[] to, int quantity) {
        int x1 = from[0] + WIDE;
        int y1 = from[1] + component.height() / 2;
        int x2 = to[0];
        int y2 = to[1] + parent.height() / 2;
        int bend = Math.max(30, (x2 - x1) / 2);
        List<Integer> bars = new ArrayList<>();
        for (int i = 0; i < Math.min(5, component.blocked); i++) bars.add(x1 + 8 + i * 6);
        return new Edge(
                "M" + x1 + " " + y1 + "C" + (x1 + bend) + " " + y1 + " " + (x2 - bend) + " " + y2 + " " + x2 + " " + y2,
                component.stand(),
                quantity > 1 ? "×" + quantity : "",
                x1 + 22,
                y1 - 6,
                bars);
    }
}
