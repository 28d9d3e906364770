package mintshelf.app.effect;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RangeStore;
import mintshelf.app.store.document.ReservedStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Aspect;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.numbering.NumberPattern;
import mintshelf.core.numbering.RangeRules;
import org.springframework.stereotype.Component;

/** Numbers of documents and papers: one rule of scope, one year, the house's. Within the caller's transaction. */
@Component
public class DrawNumbers {
    /** Numbers of a series that are tried when others were typed ahead of it. */
    private static final int TRIES = 1000;

    private static final int TRIES_AHEAD = 20;

    private final NumberStore numbers;
    private final RangeStore ranges;
    private final ReservedStore kept;
    private final Settings settings;
    private final Clock clock;

    public DrawNumbers(NumberStore numbers, RangeStore ranges, ReservedStore kept, Settings settings, Clock clock) {
        this.kept = kept;
        this.numbers = numbers;
        this.ranges = ranges;
        this.settings = settings;
        this.clock = clock;
    }

    /** A kind's series as it counts on one shelf in this year. */
    private record Counting(NumberStore.Series series, NumberPattern pattern, String within, int year) {
        /** Within what it counts for a document with these facts, or what of them it lacks. */
        Outcome<String> scope(Map<String, String> facts) {
            return pattern.scopeKey(year, facts).map(within::concat);
        }

        /** The number that a value makes, or why it makes none: the series has ended. */
        Outcome<NumberKey> number(long value, Map<String, String> facts) {
            Outcome<String> rendered = pattern.render(value, year, facts);
            return rendered instanceof Outcome.Granted<String> text
                    ? NumberKey.of(text.value())
                    : Outcome.refused(rendered.refusal().orElseThrow());
        }
    }

    private Counting counting(Kind kind, long shelf) {
        NumberStore.Series series = numbers.series(kind.numberSeries());
        String within = switch (series.scope()) {
            case "SHELF" -> "shelf " + shelf + ": ";
            case "KIND" -> "kind " + kind.id() + ": ";
            default -> "";
        };
        int year = clock.instant().atZone(settings.zone()).getYear();
        return new Counting(series, NumberPattern.parse(series.pattern()).orElseThrow(Refused::new), within, year);
    }

    /** A number that was drawn, and the value of which counter made it. */
    public record Drawn(long series, String scope, long value, NumberKey number) {}

    /** The next free number of a kind's series on a shelf, or why there is none. */
    public Outcome<NumberKey> next(Kind kind, long shelf, Map<String, String> facts) {
        Counting c = counting(kind, shelf);
        Outcome<String> counts = c.scope(facts);
        if (!(counts instanceof Outcome.Granted<String> scope)) {
            return Outcome.refused(counts.refusal().orElseThrow());
        }
        Optional<Drawn> drawn = draw(kind, shelf, List.of(facts)).get(0);
        if (drawn.isPresent()) return Outcome.granted(drawn.get().number());
        return c.number(numbers.next(c.series().id(), scope.value()), facts)
                .refusal()
                .<Outcome<NumberKey>>map(Outcome::refused)
                .orElseGet(() -> Outcome.refused(
                        "series.used", "The next thousand numbers of the series are used.", "Type a number."));
    }

    /**
     * The next free numbers of a kind's series on a shelf, for documents with these facts, in their order; none for those whose facts the series lacks,
     * when the next thousand are used or the series ends. A few statements a counter, however many are drawn.
     */
    public List<Optional<Drawn>> draw(Kind kind, long shelf, List<Map<String, String>> all) {
        Counting counting = counting(kind, shelf);
        List<Optional<Drawn>> drawn = new ArrayList<>(Collections.nCopies(all.size(), Optional.empty()));
        Map<String, List<Integer>> byScope = new LinkedHashMap<>();
        for (int i = 0; i < all.size(); i++) {
            Optional<String> scope = counting.scope(all.get(i)).toOptional();
            if (scope.isPresent())
                byScope.computeIfAbsent(scope.get(), s -> new ArrayList<>()).add(i);
        }
        byScope.forEach((scope, missing) -> {
            for (int tries = 0; tries < TRIES && !missing.isEmpty(); tries++) {
                Map<Integer, Drawn> candidates = candidates(counting, scope, all, missing);
                if (candidates.isEmpty()) break;
                Set<String> used = numbers.used(
                        barred(kind),
                        candidates.values().stream().map(d -> d.number().key()).toList());
                candidates.forEach((at, one) -> {
                    if (!used.contains(one.number().key())) drawn.set(at, Optional.of(one));
                });
                missing.removeIf(at -> drawn.get(at).isPresent());
            }
        });
        return drawn;
    }

    /** What was given back comes first, then the counter goes on. */
    private Map<Integer, Drawn> candidates(
            Counting counting, String scope, List<Map<String, String>> all, List<Integer> missing) {
        long series = counting.series().id();
        List<Long> values = new ArrayList<>();
        while (values.size() < missing.size()) {
            OptionalLong back = ranges.draw(series, scope);
            if (back.isEmpty()) break;
            values.add(back.getAsLong());
        }
        int rest = missing.size() - values.size();
        if (rest > 0) {
            long first = numbers.draw(series, scope, rest);
            for (int i = 0; i < rest; i++) values.add(first + i);
        }
        Map<Integer, Drawn> candidates = new LinkedHashMap<>();
        for (int i = 0; i < values.size(); i++) {
            int at = missing.get(i);
            long value = values.get(i);
            counting.number(value, all.get(at))
                    .toOptional()
                    .ifPresent(number -> candidates.put(at, new Drawn(series, scope, value, number)));
        }
        return candidates;
    }

    /** Which of these numbers that were drawn a kind's series would give to documents with these facts, in their order. */
    public List<Boolean> fit(Kind kind, long shelf, List<Map<String, String>> facts, List<Drawn> drawn) {
        Counting counting = counting(kind, shelf);
        List<Boolean> fit = new ArrayList<>();
        for (int i = 0; i < drawn.size(); i++) {
            Drawn one = drawn.get(i);
            Map<String, String> said = facts.get(i);
            fit.add(one.series() == counting.series().id()
                    && counting.scope(said)
                            .toOptional()
                            .filter(one.scope()::equals)
                            .isPresent()
                    && counting.number(one.value(), said)
                            .toOptional()
                            .filter(one.number()::equals)
                            .isPresent());
        }
        return fit;
    }

    /** Numbers that were drawn and are not needed: the counter goes back behind the last ones, the others are drawn again before it goes on. */
    public void giveBack(Collection<Drawn> all, long by) {
        record Counter(long series, String scope) {}
        Map<Counter, NavigableSet<Long>> values = new LinkedHashMap<>();
        all.forEach(d -> values.computeIfAbsent(new Counter(d.series(), d.scope()), c -> new TreeSet<>())
                .add(d.value()));
        values.forEach((counter, each) -> {
            List<Long> down = List.copyOf(each.descendingSet());
            int at = 0;
            while (at < down.size()) {
                int end = at;
                while (end + 1 < down.size() && down.get(end + 1) == down.get(end) - 1) end++;
                long first = down.get(end);
                long last = down.get(at);
                if (!numbers.takeBack(counter.series(), counter.scope(), first, last)) {
                    ranges.back(counter.series(), counter.scope(), first, last, by, clock.instant());
                }
                at = end + 1;
            }
        });
    }

    /**
     * The number of a new document: the one that somebody typed, where it is free and theirs to take, or the next one of the series.
     *
     * @param typed empty to draw
     */
    public Outcome<NumberKey> take(long person, Kind kind, long shelf, String typed, Map<String, String> facts) {
        return take(person, kind, shelf, typed, facts, false);
    }

    /**
     * As {@link #take(long, Kind, long, String, Map)}.
     *
     * @param ownLine whether a part may be the part of a drawing or model, with revisions of its own
     */
    Outcome<NumberKey> take(
            long person, Kind kind, long shelf, String typed, Map<String, String> facts, boolean ownLine) {
        if (typed.isBlank()) return next(kind, shelf, facts);
        Outcome<NumberKey> wanted = NumberKey.of(typed);
        if (!(wanted instanceof Outcome.Granted<NumberKey> granted)) return wanted;
        NumberKey number = granted.value();
        Optional<ReservedStore.Holder> keptFor = kept.holder(kind.aspect(), number);
        if (keptFor.isPresent()) {
            return Outcome.refused(
                    "number.reserved",
                    number.number() + " is kept for a filing sheet of "
                            + (keptFor.get().person() == person
                                    ? "yours"
                                    : keptFor.get().name())
                            + " that is open.",
                    "Choose another number, or drop that sheet first; an empty field draws the next of the series.");
        }
        if (numbers.isUsed(kind.aspect(), number)) {
            return Outcome.refused(
                    "number.used",
                    number.number() + " is used for a " + kind.aspect().name().toLowerCase(Locale.ROOT) + " already.",
                    "Choose another number, or empty the field to draw the next of the series.");
        }
        Optional<Refusal> described = ownLine ? Optional.empty() : described(kind, number);
        if (described.isPresent()) return Outcome.refused(described.get());
        Optional<Refusal> reserved = reserved(person, kind, shelf, number, facts);
        if (reserved.isPresent()) return Outcome.refused(reserved.get());
        typed(kind, shelf, number, facts);
        return wanted;
    }

    /** The aspects whose numbers a kind does not take: a part without a file is that of no drawing or model. */
    private static List<Aspect> barred(Kind kind) {
        return kind.isPart() ? List.of(Aspect.PART, Aspect.MODEL, Aspect.DRAWING) : List.of(kind.aspect());
    }

    /** Why no part of its own bears a number: its model or drawing bears the part already, with its facts. */
    private Optional<Refusal> described(Kind kind, NumberKey number) {
        return barred(kind).stream()
                .filter(a -> a != kind.aspect() && numbers.item(a, number).isPresent())
                .findFirst()
                .map(
                        a -> Refusal.of(
                                "part.described",
                                "The part " + number.number() + " is that of the "
                                        + a.name().toLowerCase(Locale.ROOT) + " of this number already.",
                                "Say there how it comes and what it costs, or choose another number. Who keeps the house rules may give it a part with revisions of its own."));
    }

    /**
     * The numbers that would be drawn next, without drawing them: those that are used already are passed over.
     *
     * @param most how many are wanted
     */
    public Outcome<List<String>> ahead(Kind kind, long shelf, Map<String, String> facts, int most) {
        Counting c = counting(kind, shelf);
        Outcome<String> counts = c.scope(facts);
        if (!(counts instanceof Outcome.Granted<String> scope)) {
            return Outcome.refused(counts.refusal().orElseThrow());
        }
        List<Long> values = new ArrayList<>();
        for (RangeStore.Range range : ranges.back(c.series().id(), scope.value())) {
            for (long value = range.nextBack().orElseThrow(); value <= range.last() && values.size() < most; value++) {
                values.add(value);
            }
        }
        long first = numbers.next(c.series().id(), scope.value());
        for (long value = first; value < first + most + TRIES_AHEAD; value++) values.add(value);
        List<NumberKey> candidates = new ArrayList<>();
        for (long value : values) {
            // A series that ends here says so when it is drawn from.
            if (!(c.pattern().render(value, c.year(), facts) instanceof Outcome.Granted<String> rendered)) break;
            candidates.add(NumberKey.of(rendered.value()).orElseThrow(Refused::new));
        }
        Set<String> used = numbers.used(
                barred(kind), candidates.stream().map(NumberKey::key).toList());
        return Outcome.granted(candidates.stream()
                .filter(n -> !used.contains(n.key()))
                .map(NumberKey::number)
                .limit(most)
                .toList());
    }

    /** Whether the house reserved any numbers ahead. */
    public boolean reservesAny() {
        return ranges.reservesAny();
    }

    /** Why somebody may not type a number that the house reserved ahead; nothing when they may. */
    public Optional<Refusal> reserved(long person, Kind kind, long shelf, NumberKey number, Map<String, String> facts) {
        Counting c = counting(kind, shelf);
        OptionalLong counter = c.pattern().counterIn(number.number(), c.year(), facts);
        if (counter.isEmpty() || !(c.scope(facts) instanceof Outcome.Granted<String> scope)) return Optional.empty();
        return ranges.reserving(c.series().id(), scope.value(), counter.getAsLong())
                .flatMap(r -> RangeRules.use(number.number(), r.forWhom(), r.forName(), person));
    }

    /** A number was typed: one that fits the series pushes its counter on. */
    public void typed(Kind kind, long shelf, NumberKey number, Map<String, String> facts) {
        Counting c = counting(kind, shelf);
        OptionalLong counter = c.pattern().counterIn(number.number(), c.year(), facts);
        if (counter.isPresent() && c.scope(facts) instanceof Outcome.Granted<String> scope) {
            numbers.push(c.series().id(), scope.value(), counter.getAsLong());
        }
    }
}
