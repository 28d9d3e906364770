package mintshelf.app.use.house;

import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RangeStore;
import mintshelf.app.store.document.RangeStore.Range;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.SeriesStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Aspect;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.numbering.NumberPattern;
import org.springframework.stereotype.Service;

/** Number series as their keeper reads them: where each counter stands, which numbers were left out, which are reserved. */
@Service
public class ReadSeries {
    private static final int MOST = 60;
    /** Numbers behind a counter that are looked at for gaps. */
    private static final int BACK = 300;

    private static final int AHEAD = 20;
    private static final int GAPS = 12;
    private final SeriesStore series;
    private final NumberStore numbers;
    private final RangeStore ranges;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final Settings settings;
    private final Clock clock;

    ReadSeries(
            SeriesStore series,
            NumberStore numbers,
            RangeStore ranges,
            HouseStore house,
            ShelfStore shelves,
            Settings settings,
            Clock clock) {
        this.series = series;
        this.numbers = numbers;
        this.ranges = ranges;
        this.house = house;
        this.shelves = shelves;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A counter of a series.
     *
     * @param scope within what it counts, as kept
     * @param where the same in words; empty for the whole house
     * @param next its next numbers
     * @param gaps numbers behind its next one that nobody has and that are not reserved; of the last 300 counted, the first twelve
     * @param more whether there are more gaps than those
     */
    public record Counted(
            String scope, String where, String around, List<String> next, List<String> gaps, boolean more) {}

    /**
     * Numbers that were reserved ahead.
     *
     * @param where within what they count, in words; empty for the whole house
     * @param span in words: "D-00042 to D-00051"
     * @param says how many of them are used, or what is left to be drawn again
     */
    public record Reserved(Range range, String where, String span, String says) {}

    /** A series with its pattern and the aspects of the documents that draw from it. */
    private record Of(long id, SeriesRule rule, NumberPattern pattern, Set<Aspect> aspects) {}

    private Of of(String code) {
        Map.Entry<Long, SeriesRule> of = series.all().entrySet().stream()
                .filter(s -> s.getValue().code().equals(code))
                .findFirst()
                .orElseThrow(NotThere::new);
        List<Aspect> aspects = house.kinds().stream()
                .filter(k -> k.numberSeries() == of.getKey())
                .map(Kind::aspect)
                .toList();
        // A rule that cannot be read is not kept.
        NumberPattern pattern =
                NumberPattern.parse(of.getValue().pattern()).orElseThrow(r -> new IllegalStateException(r.says()));
        return new Of(of.getKey(), of.getValue(), pattern, Set.copyOf(aspects));
    }

    public List<Counted> counters(Actor actor, String code) {
        HouseRules.ask(actor);
        Of of = of(code);
        List<Range> reserved = ranges.ranges(of.id(), MOST);
        List<Counted> all = numbers.counters(of.id(), MOST).stream()
                .map(c -> counted(c, of, reserved))
                .toList();
        boolean begun = !all.isEmpty();
        // What nobody has drawn from yet begins with its first number.
        return !begun
                        && of.rule().counts() == SeriesRule.Counts.SERVER
                        && of.pattern().scopeKey(year(), Map.of()) instanceof Outcome.Granted<String> scope
                ? List.of(counted(new NumberStore.Counter(scope.value(), 1), of, reserved))
                : all;
    }

    /** The ranges of a series that hold something yet, the latest first. */
    public List<Reserved> ranges(Actor actor, String code) {
        HouseRules.ask(actor);
        Of of = of(code);
        return ranges.ranges(of.id(), MOST).stream()
                .map(r -> {
                    Scope scope = scope(r.scope());
                    return new Reserved(r, scope.where(), span(of, scope, r.first(), r.last()), says(of, scope, r));
                })
                .toList();
    }

    private String says(Of of, Scope scope, Range range) {
        int count = (int) (range.last() - range.first() + 1);
        if (!range.isReserved()) {
            return "given back; " + (range.last() - range.nextBack().orElseThrow() + 1) + " are drawn again next";
        }
        if (!isPlain(of.pattern(), scope)) return Numbers.count(count, "number", "numbers");
        Map<Long, String> all = spelt(of.pattern(), range.first(), range.last());
        return used(of, all).size() + " of " + count + " used";
    }

    /** The numbers of a range in words; its values where the pattern needs facts, or another year, to say them. */
    String span(String code, String scope, long first, long last) {
        return span(of(code), scope(scope), first, last);
    }

    private String span(Of of, Scope scope, long first, long last) {
        if (!isPlain(of.pattern(), scope)) {
            return (first == last ? "number " + first : "numbers " + first + " to " + last) + " of " + scope.around();
        }
        String from = number(of.pattern(), first);
        return first == last ? from : from + " to " + number(of.pattern(), last);
    }

    /** Within what a counter counts: where, in words, and what stands around its numbers. */
    private record Scope(String where, String around) {}

    private Scope scope(String within) {
        if (!within.matches("(shelf|kind) \\d+: .*")) return new Scope("", within);
        long id = Long.parseLong(within.substring(within.indexOf(' ') + 1, within.indexOf(':')));
        String where = within.startsWith("shelf")
                ? shelves.shelf(id).map(ShelfStore.Shelf::name).orElse("a shelf that is gone")
                : house.kinds().stream()
                        .filter(k -> k.id() == id)
                        .map(Kind::name)
                        .findFirst()
                        .orElse("a kind that is gone");
        return new Scope(where, within.substring(within.indexOf(": ") + 2));
    }

    private int year() {
        return clock.instant().atZone(settings.zone()).getYear();
    }

    /** A counter of another year, or of a fact's value, shows what stands around its numbers; those are not made up here. */
    private boolean isPlain(NumberPattern pattern, Scope scope) {
        return pattern.facts().isEmpty()
                && pattern.scopeKey(year(), Map.of()) instanceof Outcome.Granted<String> now
                && now.value().equals(scope.around());
    }

    private Counted counted(NumberStore.Counter counter, Of of, List<Range> reserved) {
        Scope scope = scope(counter.within());
        List<String> next = new ArrayList<>();
        List<String> gaps = new ArrayList<>();
        if (isPlain(of.pattern(), scope)) {
            Map<Long, String> all = spelt(of.pattern(), Math.max(1, counter.next() - BACK), counter.next() + AHEAD - 1);
            Set<String> used = used(of, all);
            List<Range> here = reserved.stream()
                    .filter(r -> r.scope().equals(counter.within()))
                    .toList();
            all.forEach((value, number) -> {
                boolean free = !used.contains(key(number));
                if (value >= counter.next()) {
                    if (free && next.size() < 3) next.add(number);
                } else if (free && here.stream().noneMatch(r -> holds(r, value))) {
                    gaps.add(number);
                }
            });
        }
        boolean more = gaps.size() > GAPS;
        return new Counted(
                counter.within(),
                scope.where(),
                scope.around(),
                next,
                more ? List.copyOf(gaps.subList(0, GAPS)) : gaps,
                more);
    }

    private static boolean holds(Range range, long value) {
        return range.first() <= value
                && value <= range.last()
                && range.nextBack().filter(n -> value < n).isEmpty();
    }

    private Map<Long, String> spelt(NumberPattern pattern, long first, long last) {
        Map<Long, String> all = new LinkedHashMap<>();
        for (long value = first; value <= last; value++) all.put(value, number(pattern, value));
        return all;
    }

    private String number(NumberPattern pattern, long value) {
        return pattern.render(value, year(), Map.of()) instanceof Outcome.Granted<String> n ? n.value() : "";
    }

    private static String key(String number) {
        Optional<NumberKey> key = NumberKey.of(number) instanceof Outcome.Granted<NumberKey> g
                ? Optional.of(g.value())
                : Optional.empty();
        return key.map(NumberKey::key).orElse("");
    }

    private Set<String> used(Of of, Map<Long, String> all) {
        return numbers.used(
                of.aspects(), all.values().stream().map(ReadSeries::key).toList());
    }
}
