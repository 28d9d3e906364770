package mintshelf.core.change;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.LongFunction;
import java.util.stream.Collectors;
import mintshelf.core.release.ReleaseSet.Shows;

/**
 * How far a change reaches: what its lines do to all that they stand in. A proposal, which people override.
 *
 * <p>A line that is interchangeable keeps its number, and what it stands in takes it as it is: there it ends. One that is not needs a
 * new number, so that each document that it stands in is revised to refer to it; whoever is revised keeps its number in turn, and is
 * taken as it is, unless it was declared not interchangeable: then it needs a new number as well, and so on above it. Sheets that show
 * what is revised or needs a new number come along. Of several verdicts the strongest stands.
 *
 * @param nodes all that is touched: the lines first, then level by level above them; of a level the sheets that come along last
 * @param spared what people say is not touched, against the rule, in ascending order
 */
public record Impact(List<Node> nodes, List<Long> spared) {
    public Impact {
        nodes = List.copyOf(nodes);
        spared = List.copyOf(spared);
    }

    /** What a change does to a document; the strongest last. */
    public enum Verdict {
        TAKES("takes it as it is", "take it as it is"),
        ALONG("comes along", "come along"),
        REVISED("is revised", "are revised"),
        NEW_NUMBER("needs a new number", "need new numbers");

        private final String words;
        private final String ofMany;

        Verdict(String words, String ofMany) {
            this.words = words;
            this.ofMany = ofMany;
        }

        /** As in "{count} {words}". */
        public String words(int count) {
            return count == 1 ? words : ofMany;
        }

        public String words() {
            return words;
        }

        /** Whether somebody has work with it. */
        public boolean isWork() {
            return this != TAKES;
        }

        private Verdict or(Verdict other) {
            return compareTo(other) >= 0 ? this : other;
        }
    }

    /**
     * A document that is to be changed.
     *
     * @param interchangeable whether the new one can take the place of the old one in form, fit and function
     */
    public record Line(long item, boolean interchangeable) {}

    /**
     * What people say against the rule about a document that is not a line.
     *
     * @param verdict what it is instead; empty: it is not touched, and nothing goes on above it
     */
    public record Against(Optional<Verdict> verdict) {}

    /**
     * A document that is touched.
     *
     * @param level 0 for a line, else how many levels above the nearest one; that of its model for a sheet that comes along
     * @param because what it refers to or shows that makes it so, in ascending order; empty for a line that is so by itself
     * @param proposed what the rule says, where people say something else
     */
    public record Node(
            long item, Verdict verdict, int level, boolean line, List<Long> because, Optional<Verdict> proposed) {
        public Node {
            because = List.copyOf(because);
        }

        /** The verdict and what makes it so, as a sentence without its document: "is revised: it refers to 1, which needs a new number". */
        public String says(LongFunction<String> number) {
            if (proposed.isPresent())
                return verdict.words() + ", against “" + proposed.get().words() + "”";
            if (because.isEmpty()) {
                return verdict == Verdict.NEW_NUMBER
                        ? "is changed and not interchangeable: needs a new number"
                        : "is changed and interchangeable";
            }
            String named =
                    number.apply(because.get(0)) + (because.size() > 1 ? " and " + (because.size() - 1) + " more" : "");
            boolean one = because.size() == 1;
            return switch (verdict) {
                case TAKES -> "takes " + named + " as " + (one ? "it is" : "they are");
                case ALONG -> "comes along: it shows " + named;
                case REVISED ->
                    "is revised: it refers to " + named + ", which "
                            + (one ? "needs a new number" : "need new numbers");
                case NEW_NUMBER -> "needs a new number: it is not interchangeable and refers to " + named;
            };
        }
    }

    /** Which documents a document stands in directly, each once. */
    @FunctionalInterface
    public interface UsedIn {
        long[] of(long item);
    }

    /**
     * Follows a change upwards. O(what is touched and its uses).
     *
     * @param declared whether a document is interchangeable after it was revised; what is not in it is
     * @param overrides by document; those about lines are not looked at, for a line says itself what it is
     * @param sheets which sheets show which of some models; asked once, about what is revised or needs a new number
     */
    public static Impact of(
            Collection<Line> lines,
            Map<Long, Boolean> declared,
            Map<Long, Against> overrides,
            UsedIn usedIn,
            Function<Set<Long>, Collection<Shows>> sheets) {
        Reach reach = new Reach(lines, declared, overrides, usedIn);
        reach.follow();
        return reach.impact(sheets);
    }

    /** By verdict, how many; the strongest first. */
    public Map<Verdict, Integer> counts() {
        Map<Verdict, Integer> counts = new LinkedHashMap<>();
        for (int i = Verdict.values().length - 1; i >= 0; i--) counts.put(Verdict.values()[i], 0);
        nodes.forEach(n -> counts.merge(n.verdict(), 1, Integer::sum));
        counts.values().removeIf(n -> n == 0);
        return counts;
    }

    /** The verdicts as they spread; a document is asked again whenever its own has become stronger. */
    private static final class Reach {
        private final Map<Long, Boolean> lines = new LinkedHashMap<>();
        private final Map<Long, Boolean> declared;
        private final Map<Long, Against> overrides;
        private final UsedIn usedIn;
        private final Map<Long, Verdict> proposed = new LinkedHashMap<>();
        private final Map<Long, long[]> parents = new HashMap<>();
        private final Deque<Long> open = new ArrayDeque<>();

        Reach(Collection<Line> lines, Map<Long, Boolean> declared, Map<Long, Against> overrides, UsedIn usedIn) {
            // Of one document asked twice the stricter word stands.
            lines.forEach(l -> this.lines.merge(l.item(), l.interchangeable(), Boolean::logicalAnd));
            this.declared = declared;
            this.overrides = overrides;
            this.usedIn = usedIn;
        }

        void follow() {
            lines.forEach(
                    (item, interchangeable) -> raise(item, interchangeable ? Verdict.REVISED : Verdict.NEW_NUMBER));
            while (!open.isEmpty()) {
                long item = open.poll();
                Optional<Verdict> stands = stands(item);
                if (stands.isEmpty() || !goesOn(stands.get())) continue;
                for (long parent : parents(item)) raise(parent, above(stands.get(), parent));
            }
        }

        private static boolean goesOn(Verdict verdict) {
            return verdict == Verdict.REVISED || verdict == Verdict.NEW_NUMBER;
        }

        /** What a document that refers to one of this verdict is by it. */
        private Verdict above(Verdict below, long parent) {
            if (below == Verdict.REVISED) return Verdict.TAKES;
            boolean stays = lines.containsKey(parent) ? lines.get(parent) : declared.getOrDefault(parent, true);
            return stays ? Verdict.REVISED : Verdict.NEW_NUMBER;
        }

        private void raise(long item, Verdict verdict) {
            Verdict before = proposed.get(item);
            Verdict after = before == null ? verdict : before.or(verdict);
            if (after == before) return;
            proposed.put(item, after);
            open.add(item);
        }

        private long[] parents(long item) {
            return parents.computeIfAbsent(item, usedIn::of);
        }

        private Optional<Verdict> stands(long item) {
            if (!lines.containsKey(item) && overrides.containsKey(item))
                return overrides.get(item).verdict();
            return Optional.ofNullable(proposed.get(item));
        }

        Impact impact(Function<Set<Long>, Collection<Shows>> sheets) {
            Map<Long, Set<Long>> because = new HashMap<>();
            Map<Long, Integer> levels = new HashMap<>();
            Deque<Long> next = new ArrayDeque<>(lines.keySet());
            lines.keySet().forEach(item -> levels.put(item, 0));
            while (!next.isEmpty()) {
                long item = next.poll();
                int above = levels.getOrDefault(item, 0) + 1;
                Optional<Verdict> stands = stands(item);
                if (stands.isEmpty() || !goesOn(stands.get())) continue;
                for (long parent : parents(item)) {
                    if (above(stands.get(), parent) == proposed.get(parent)) {
                        because.computeIfAbsent(parent, p -> new LinkedHashSet<>())
                                .add(item);
                    }
                    if (levels.putIfAbsent(parent, above) == null) next.add(parent);
                }
            }
            along(sheets, levels).forEach((sheet, models) -> {
                if (proposed.get(sheet) == Verdict.ALONG) because.put(sheet, models);
                levels.putIfAbsent(
                        sheet,
                        models.stream()
                                .mapToInt(m -> levels.getOrDefault(m, 0))
                                .min()
                                .orElse(0));
            });
            List<Node> nodes = new ArrayList<>();
            List<Long> spared = new ArrayList<>();
            levels.forEach((item, level) -> stands(item)
                    .ifPresentOrElse(
                            verdict -> nodes.add(node(item, verdict, level, because.getOrDefault(item, Set.of()))),
                            () -> spared.add(item)));
            nodes.sort(Comparator.comparingInt(Node::level)
                    .thenComparing(n -> !n.line())
                    .thenComparing(n -> n.verdict() == Verdict.ALONG)
                    .thenComparingLong(Node::item));
            return new Impact(nodes, spared.stream().sorted().toList());
        }

        /** The sheets of what is worked on, with what they show; one that would only take something comes along instead. */
        private Map<Long, Set<Long>> along(Function<Set<Long>, Collection<Shows>> sheets, Map<Long, Integer> levels) {
            Set<Long> worked = levels.keySet().stream()
                    .filter(item -> stands(item).filter(Reach::goesOn).isPresent())
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            Map<Long, Set<Long>> shown = new LinkedHashMap<>();
            for (Shows s : sheets.apply(worked)) {
                if (worked.contains(s.model()))
                    shown.computeIfAbsent(s.drawing(), d -> new LinkedHashSet<>())
                            .add(s.model());
            }
            shown.keySet().forEach(sheet -> proposed.merge(sheet, Verdict.ALONG, Verdict::or));
            return shown;
        }

        private Node node(long item, Verdict verdict, int level, Set<Long> because) {
            return new Node(
                    item,
                    verdict,
                    level,
                    lines.containsKey(item),
                    because.stream().sorted().toList(),
                    Optional.ofNullable(proposed.get(item)).filter(rule -> rule != verdict));
        }
    }
}
