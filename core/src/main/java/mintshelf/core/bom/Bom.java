package mintshelf.core.bom;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Optional;

/**
 * A BOM: a part on top and the lines below it, level by level. Each part is in it once, however often it stands in lines, so that all
 * is computed over parts and lines, never over paths: a structure of a few hundred parts may have millions of those.
 *
 * <p>Files by many hands hold rings. A line that leads back to what is above it stands in the list, and counts for nothing.
 */
public final class Bom {
    /** Levels that are looked at. */
    public static final int DEEPEST = 60;

    /** Digits that sums and products keep: those of IEEE 754 decimal128. */
    static final MathContext DIGITS = MathContext.DECIMAL128;

    private final List<BomPart> parts;
    private final List<List<BomLine>> lines;
    private final int[] order;
    private final boolean[][] ring;
    private final boolean[] reached;

    private Bom(List<BomPart> parts, List<List<BomLine>> lines) {
        this.parts = List.copyOf(parts);
        this.lines = lines.stream().map(List::copyOf).toList();
        this.ring = new boolean[parts.size()][];
        for (int i = 0; i < ring.length; i++)
            ring[i] = new boolean[this.lines.get(i).size()];
        this.order = sorted();
        this.reached = new boolean[parts.size()];
        for (int part : order) reached[part] = true;
    }

    /**
     * Of parts and the lines below each, by their places; the first is the top. O(parts + lines).
     *
     * @throws IllegalArgumentException when a line leads to no part
     */
    public static Bom of(List<BomPart> parts, List<List<BomLine>> lines) {
        boolean leadsOut = lines.stream().flatMap(List::stream).anyMatch(l -> l.part() < 0 || l.part() >= parts.size());
        if (parts.isEmpty() || parts.size() != lines.size() || leadsOut)
            throw new IllegalArgumentException("lines lead to parts that are not there");
        return new Bom(parts, lines);
    }

    public BomPart top() {
        return parts.get(0);
    }

    public BomPart part(int place) {
        return parts.get(place);
    }

    public List<BomLine> lines(int place) {
        return lines.get(place);
    }

    public int size() {
        return parts.size();
    }

    /** Whether a line leads back to what is above it. */
    public boolean isRing(int part, int line) {
        return ring[part][line];
    }

    /** The lines that close a ring, as what is above and what is below. */
    public List<BomPart[]> rings() {
        List<BomPart[]> found = new ArrayList<>();
        for (int p = 0; p < ring.length; p++) {
            for (int i = 0; i < ring[p].length; i++) {
                if (ring[p][i])
                    found.add(new BomPart[] {
                        parts.get(p), parts.get(lines.get(p).get(i).part())
                    });
            }
        }
        return found;
    }

    /** Parts so that each stands behind all that it is in; marks lines that close rings. A depth-first walk without recursion. */
    private int[] sorted() {
        byte[] state = new byte[parts.size()]; // 0 not met, 1 open, 2 done
        int[] at = new int[parts.size()];
        int[] done = new int[parts.size()];
        int count = 0;
        Deque<Integer> open = new ArrayDeque<>(List.of(0));
        state[0] = 1;
        while (!open.isEmpty()) {
            int part = open.peek();
            List<BomLine> below = lines.get(part);
            if (at[part] == below.size()) {
                state[part] = 2;
                done[count++] = part;
                open.pop();
                continue;
            }
            int line = at[part]++;
            int next = below.get(line).part();
            if (state[next] == 1) ring[part][line] = true;
            else if (state[next] == 0) {
                state[next] = 1;
                open.push(next);
            }
        }
        int[] order = new int[count];
        for (int i = 0; i < count; i++) order[i] = done[count - 1 - i];
        return order;
    }

    /** Whether lines lead to a part from the top: those of other products lead to none. */
    public boolean isReached(int place) {
        return reached[place];
    }

    /** Places of parts that can be reached from the top, each behind all that it is in. */
    int[] order() {
        return order.clone();
    }

    /**
     * The quantity of a line in its part's own unit; nothing where the two units are not of one sort, or where the line is part of some
     * products only and nobody asked for one.
     */
    public Optional<BigDecimal> quantity(BomLine line) {
        if (line.open()) return Optional.empty();
        return BomUnits.in(line.quantity(), line.unit(), parts.get(line.part()).unit());
    }

    /** What stands only for what is below it; a phantom of nothing stands for itself. */
    private boolean isDissolved(int part) {
        return parts.get(part).comes() == Comes.PHANTOM && !lines.get(part).isEmpty();
    }

    /** For whom a BOM is read. */
    public enum For {
        ENGINEERING("engineering", "As it is designed: assemblies with what is in them."),
        PURCHASING(
                "purchasing", "What is bought, below what is made; what is inside of what is bought is its maker's."),
        MANUFACTURING("manufacturing", "As it is made: what stands only for what is below it is dissolved.");

        private final String word;
        private final String rule;

        For(String word, String rule) {
            this.word = word;
            this.rule = rule;
        }

        public String word() {
            return word;
        }

        /** In a sentence. */
        public String rule() {
            return rule;
        }

        public static Optional<For> of(String word) {
            return Arrays.stream(values()).filter(f -> f.word.equals(word)).findFirst();
        }
    }

    /**
     * A row of a tree.
     *
     * @param find numbers down to it: "3/2"
     * @param above place of the part that the line is of
     * @param needed how many of it one of the top needs along this path, in its own unit; nothing where a unit in between does not fit
     */
    public record Row(int depth, String find, int above, BomLine line, Optional<BigDecimal> needed, boolean ring) {}

    /** Rows of a tree, and whether more are below than were asked for. */
    public record Tree(List<Row> rows, boolean cut) {}

    /**
     * The tree, as it is designed or as it is made. What comes whole is not opened.
     *
     * @param deepest levels; 1 for the lines of the top alone
     * @param most rows
     */
    public Tree tree(boolean dissolved, int deepest, int most) {
        List<Row> rows = new ArrayList<>();
        Walk walk = new Walk(dissolved, deepest, most, rows);
        boolean cut = !walk(0, 0, "", Optional.of(BigDecimal.ONE), walk);
        return new Tree(rows, cut);
    }

    /** What is dissolved gives no row: the steps of a walk are counted, too. */
    private static final class Walk {
        private final boolean dissolved;
        private final int deepest;
        private final int most;
        private final List<Row> rows;
        private long steps;

        Walk(boolean dissolved, int deepest, int most, List<Row> rows) {
            this.dissolved = dissolved;
            this.deepest = deepest;
            this.most = most;
            this.rows = rows;
        }

        boolean goesOn() {
            return ++steps <= 4L * most + 1000;
        }
    }

    private boolean walk(int part, int depth, String find, Optional<BigDecimal> needed, Walk walk) {
        List<BomLine> below = lines.get(part);
        for (int i = 0; i < below.size(); i++) {
            if (!walk.goesOn()) return false;
            BomLine line = below.get(i);
            String number = find.isEmpty() ? line.find() : find + "/" + line.find();
            boolean back = ring[part][i];
            Optional<BigDecimal> along =
                    back ? Optional.empty() : needed.flatMap(n -> quantity(line).map(q -> q.multiply(n, DIGITS)));
            Comes comes = parts.get(line.part()).comes();
            boolean melts = walk.dissolved && isDissolved(line.part()) && !back;
            if (!melts) {
                if (walk.rows.size() >= walk.most) return false;
                walk.rows.add(new Row(depth, number, part, line, along, back));
            }
            if (back || comes.isWhole() || (!melts && depth + 1 >= walk.deepest)) continue;
            if (!walk(line.part(), melts ? depth : depth + 1, number, along, walk)) return false;
        }
        return true;
    }

    /**
     * A part of a flat list.
     *
     * @param place of the part
     * @param needed how many of it one of the top needs, in its own unit: the product along each path, summed over the paths
     * @param whole whether that is all: no line on the way was in a unit that does not fit
     */
    public record Total(int place, BigDecimal needed, boolean whole) {}

    /**
     * All parts below the top, each once, by number. O(parts + lines), whatever the number of paths.
     *
     * @param who purchasing gets what comes whole; manufacturing all but phantoms; engineering all
     */
    public List<Total> flat(For who) {
        BigDecimal[] needed = new BigDecimal[parts.size()];
        boolean[] whole = new boolean[parts.size()];
        Arrays.fill(needed, BigDecimal.ZERO);
        Arrays.fill(whole, true);
        boolean[] met = new boolean[parts.size()];
        needed[0] = BigDecimal.ONE;
        met[0] = true;
        for (int part : order) {
            // What is only inside of what comes whole is not met on the way.
            if (!met[part] || (part != 0 && parts.get(part).comes().isWhole())) continue;
            List<BomLine> below = lines.get(part);
            for (int i = 0; i < below.size(); i++) {
                if (ring[part][i]) continue;
                BomLine line = below.get(i);
                int to = line.part();
                met[to] = true;
                Optional<BigDecimal> quantity = quantity(line);
                whole[to] &= whole[part] && quantity.isPresent();
                if (quantity.isPresent())
                    needed[to] = needed[to].add(quantity.get().multiply(needed[part], DIGITS), DIGITS);
            }
        }
        List<Total> totals = new ArrayList<>();
        for (int part : order) {
            Comes comes = parts.get(part).comes();
            boolean counts = switch (who) {
                case ENGINEERING -> true;
                case PURCHASING -> comes.isWhole();
                case MANUFACTURING -> !isDissolved(part);
            };
            if (part != 0 && met[part] && counts) totals.add(new Total(part, needed[part], whole[part]));
        }
        totals.sort(Comparator.comparing((Total t) -> parts.get(t.place()).shown())
                .thenComparing(t -> parts.get(t.place()).version())
                .thenComparing(Total::place));
        return totals;
    }
}
