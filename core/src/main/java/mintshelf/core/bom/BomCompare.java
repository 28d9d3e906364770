package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What differs between two BOMs. Lines are of one part below another; a line is matched by these two, so that revisions and versions
 * may differ. What is gone here and added there in the same quantity has moved; what took the find number of what is gone has been
 * exchanged for it. Of an assembly that is new as a whole, what is inside of it is not told as well. O(lines).
 */
public final class BomCompare {
    /** What became of a line. */
    public enum What {
        ADDED,
        GONE,
        MOVED,
        EXCHANGED,
        CHANGED
    }

    /**
     * A line of one of the two.
     *
     * @param above item of what it is in
     * @param quantity summed over lines of the same part there, in the part's unit; nothing where one does not fit
     * @param written as the line has it, where the quantity is not one of the part's unit
     * @param when which products it is part of
     * @param place of the part in its BOM
     */
    public record Side(
            long above,
            String find,
            BomPart part,
            Optional<BigDecimal> quantity,
            String written,
            Effectivity when,
            int place) {}

    /**
     * A difference.
     *
     * @param old as it was; nothing for what is added
     * @param now as it is; nothing for what is gone
     * @param mass by how much it changes what the line weighs, kg; nothing where one of the two is not known
     * @param cost the same in the currency of the house
     */
    public record Difference(
            What what, Optional<Side> old, Optional<Side> now, Optional<BigDecimal> mass, Optional<BigDecimal> cost) {
        private Side one() {
            return now.or(() -> old).orElseThrow();
        }

        /** Item of what it is in now, or was in. */
        public long above() {
            return one().above();
        }

        public BomPart part() {
            return one().part();
        }

        /** What tells it from others of the same two BOMs; {@link BomCompare#line} of a line of the new one gives the same. */
        public String line() {
            return above() + " " + BomCompare.key(part());
        }

        /** In words: "6 → 8 pc", "find 3 → 4", "A → B"; empty for what is only there or gone. */
        public List<String> says() {
            if (old.isEmpty() || now.isEmpty()) return List.of();
            Side was = old.get();
            Side is = now.get();
            List<String> said = new ArrayList<>();
            if (what == What.EXCHANGED) said.add("was " + was.part().shown());
            if (!amount(was).equals(amount(is))) said.add(amount(was) + " → " + amount(is));
            if (!was.when().equals(is.when())) said.add(when(was) + " → " + when(is));
            if (what == What.EXCHANGED) return said;
            if (what == What.MOVED) said.add("from " + was.find());
            else if (!was.find().equals(is.find())) said.add("find " + was.find() + " → " + is.find());
            if (!was.part().revision().equals(is.part().revision())) said.add(tab(was.part()) + " → " + tab(is.part()));
            else if (was.part().version() != is.part().version())
                said.add("v" + was.part().version() + " → v" + is.part().version());
            if (was.part().comes() != is.part().comes())
                said.add(was.part().comes().word() + " → " + is.part().comes().word());
            return said;
        }

        /** With what it is called: "EGW-1 added (4 pc)", "EGW-2 gone", "TG40-3010 6 → 8 pc". */
        public String named() {
            String variant = part().variant();
            String called = part().shown() + (variant.isEmpty() ? "" : ", " + variant);
            if (old.isEmpty())
                return called + " added" + now.map(s -> " (" + amount(s) + ")").orElse("");
            if (now.isEmpty()) return called + " gone";
            return called + " " + String.join(", ", says());
        }

        private static String when(Side side) {
            return side.when().isAlways() ? "always" : side.when().says();
        }

        private static String amount(Side side) {
            return side.quantity().map(q -> plain(q) + " " + side.part().unit()).orElse(side.written());
        }

        private static String tab(BomPart part) {
            return part.revision().isEmpty() ? "no revision" : part.revision();
        }
    }

    /**
     * Two BOMs compared.
     *
     * @param mass what the products differ by, kg, as far as it is known
     * @param unknownMass differences of which the mass is not known
     */
    public record Result(
            List<Difference> differences, BigDecimal mass, int unknownMass, BigDecimal cost, int unknownCost) {
        /** The differences by name, the first of them, and how many more there are; empty for none. */
        public String named(int most) {
            String some =
                    differences.stream().limit(most).map(Difference::named).collect(Collectors.joining("; "));
            int more = differences.size() - most;
            return more > 0 ? some + "; and " + more + " more" : some;
        }

        public long count(What what) {
            return differences.stream().filter(d -> d.what() == what).count();
        }
    }

    private final Bom old;
    private final Bom now;
    private final RollUp[] oldSums;
    private final RollUp[] nowSums;

    private BomCompare(Bom old, Bom now) {
        this.old = old;
        this.now = now;
        this.oldSums = new RollUp[] {RollUp.of(old, RollUp.Of.MASS), RollUp.of(old, RollUp.Of.COST)};
        this.nowSums = new RollUp[] {RollUp.of(now, RollUp.Of.MASS), RollUp.of(now, RollUp.Of.COST)};
    }

    /** What differs, in the order of the new one, what is gone behind. The two tops stand for each other, whatever they are. */
    public static Result of(Bom old, Bom now) {
        return new BomCompare(old, now).result();
    }

    private record Key(long above, String below) {}

    /** The top of either is one; something without a document is what it is called. */
    private static long above(Bom bom, int place) {
        return place == 0 ? Long.MIN_VALUE : bom.part(place).item();
    }

    /** What tells a line of a BOM from its others: what it is in, and what it is. */
    public static String line(Bom bom, int above, BomPart part) {
        return above(bom, above) + " " + key(part);
    }

    private static String key(BomPart part) {
        if (part.item() > 0 && !part.variant().isEmpty()) return part.item() + "/" + part.variant();
        return part.item() > 0 ? Long.toString(part.item()) : part.number() + "\\n" + part.title();
    }

    private static Map<Key, Side> sides(Bom bom) {
        Map<Key, Side> sides = new LinkedHashMap<>();
        for (int place : bom.order()) {
            if (place != 0 && bom.part(place).comes().isWhole()) continue;
            // Where an assembly stands at two versions, its lines are those of the first.
            Set<Key> mine = new HashSet<>();
            List<BomLine> lines = bom.lines(place);
            for (int i = 0; i < lines.size(); i++) {
                BomLine line = lines.get(i);
                BomPart part = bom.part(line.part());
                Key key = new Key(above(bom, place), key(part));
                Optional<BigDecimal> quantity = bom.isRing(place, i) ? Optional.empty() : bom.quantity(line);
                Side before = sides.get(key);
                if (before == null) {
                    mine.add(key);
                    sides.put(
                            key,
                            new Side(
                                    above(bom, place),
                                    line.find(),
                                    part,
                                    quantity.map(BomCompare::same),
                                    plain(line.quantity()) + " " + line.unit(),
                                    line.when(),
                                    line.part()));
                } else if (mine.contains(key)) {
                    Optional<BigDecimal> sum =
                            before.quantity().flatMap(q -> quantity.map(more -> same(q.add(more, Bom.DIGITS))));
                    sides.put(
                            key,
                            new Side(
                                    before.above(),
                                    before.find(),
                                    before.part(),
                                    sum,
                                    before.written(),
                                    before.when(),
                                    before.place()));
                }
            }
        }
        return sides;
    }

    private static BigDecimal same(BigDecimal quantity) {
        return quantity.stripTrailingZeros();
    }

    static String plain(BigDecimal number) {
        return number.stripTrailingZeros().toPlainString();
    }

    private Result result() {
        Map<Key, Side> was = sides(old);
        Map<Key, Side> is = sides(now);
        List<Difference> differences = new ArrayList<>();
        List<Side> added = new ArrayList<>();
        List<Side> gone = new ArrayList<>();
        is.forEach((key, side) -> {
            Side before = was.get(key);
            if (before == null) added.add(side);
            else if (differs(before, side))
                differences.add(difference(What.CHANGED, Optional.of(before), Optional.of(side)));
        });
        was.forEach((key, side) -> {
            if (!is.containsKey(key)) gone.add(side);
        });
        pair(added, gone, differences);
        differences.sort(Comparator.comparing(this::place));
        return totals(differences);
    }

    private static boolean differs(Side old, Side now) {
        return !old.find().equals(now.find())
                || !old.when().equals(now.when())
                || !Difference.amount(old).equals(Difference.amount(now))
                || !old.part().revision().equals(now.part().revision())
                || old.part().version() != now.part().version()
                || old.part().comes() != now.part().comes();
    }

    /** What moved, what was exchanged; of what is left, that inside of what is new or gone as a whole is not told. */
    private void pair(List<Side> added, List<Side> gone, List<Difference> differences) {
        Set<Long> here = above(now);
        Set<Long> there = above(old);
        Map<String, Deque<Side>> byPart = new HashMap<>();
        gone.forEach(
                g -> byPart.computeIfAbsent(same(g), k -> new ArrayDeque<>()).add(g));
        Set<Side> taken = new HashSet<>();
        List<Side> left = new ArrayList<>();
        for (Side side : added) {
            Side from = byPart.getOrDefault(same(side), new ArrayDeque<>()).peek();
            if (from != null && (there.contains(side.above()) || here.contains(from.above()))) {
                byPart.getOrDefault(same(side), new ArrayDeque<>()).poll();
                taken.add(from);
                differences.add(difference(What.MOVED, Optional.of(from), Optional.of(side)));
            } else if (there.contains(side.above())) left.add(side);
        }
        List<Side> without = gone.stream()
                .filter(g -> here.contains(g.above()) && !taken.contains(g))
                .toList();
        Map<String, Side> byFind = new HashMap<>();
        without.forEach(g -> byFind.put(g.above() + " " + g.find(), g));
        for (Side side : left) {
            Optional<Side> instead = Optional.ofNullable(byFind.get(side.above() + " " + side.find()))
                    .filter(taken::add);
            differences.add(difference(instead.isPresent() ? What.EXCHANGED : What.ADDED, instead, Optional.of(side)));
        }
        without.stream()
                .filter(g -> !taken.contains(g))
                .forEach(g -> differences.add(difference(What.GONE, Optional.of(g), Optional.empty())));
    }

    private static String same(Side side) {
        return key(side.part()) + " " + side.quantity();
    }

    /** What has lines. */
    private static Set<Long> above(Bom bom) {
        Set<Long> above = new HashSet<>();
        for (int place : bom.order()) above.add(above(bom, place));
        return above;
    }

    private int place(Difference difference) {
        return difference.now().map(Side::place).orElse(Integer.MAX_VALUE);
    }

    private Difference difference(What what, Optional<Side> before, Optional<Side> side) {
        return new Difference(what, before, side, change(before, side, 0), change(before, side, 1));
    }

    private Optional<BigDecimal> change(Optional<Side> before, Optional<Side> side, int what) {
        Optional<BigDecimal> was = before.map(b -> value(oldSums[what], b)).orElse(Optional.of(BigDecimal.ZERO));
        Optional<BigDecimal> is = side.map(n -> value(nowSums[what], n)).orElse(Optional.of(BigDecimal.ZERO));
        return is.flatMap(n -> was.map(w -> n.subtract(w, Bom.DIGITS).stripTrailingZeros()));
    }

    private static Optional<BigDecimal> value(RollUp sums, Side side) {
        RollUp.Value one = sums.of(side.place());
        if (!one.complete()) return Optional.empty();
        return side.quantity().map(q -> q.multiply(one.known(), Bom.DIGITS));
    }

    private Result totals(List<Difference> differences) {
        return new Result(
                List.copyOf(differences),
                nowSums[0].top().known().subtract(oldSums[0].top().known(), Bom.DIGITS),
                (int) differences.stream().filter(d -> d.mass().isEmpty()).count(),
                nowSums[1].top().known().subtract(oldSums[1].top().known(), Bom.DIGITS),
                (int) differences.stream().filter(d -> d.cost().isEmpty()).count());
    }
}
