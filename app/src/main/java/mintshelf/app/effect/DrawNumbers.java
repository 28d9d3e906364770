package mintshelf.app.effect;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RangeStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
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
    private final Settings settings;
    private final Clock clock;

    public DrawNumbers(NumberStore numbers, RangeStore ranges, Settings settings, Clock clock) {
        this.numbers = numbers;
        this.ranges = ranges;
        this.settings = settings;
        this.clock = clock;
    }

    /** A kind's series as it counts on one shelf for a document with these facts. */
    private record Counting(NumberStore.Series series, NumberPattern pattern, Outcome<String> scope, int year) {}

    private Counting counting(Kind kind, long shelf, Map<String, String> facts) {
        NumberStore.Series series = numbers.series(kind.numberSeries());
        NumberPattern pattern = NumberPattern.parse(series.pattern()).orElseThrow(Refused::new);
        int year = clock.instant().atZone(settings.zone()).getYear();
        String within = switch (series.scope()) {
            case "SHELF" -> "shelf " + shelf + ": ";
            case "KIND" -> "kind " + kind.id() + ": ";
            default -> "";
        };
        Outcome<String> scope = pattern.scopeKey(year, facts);
        return new Counting(
                series,
                pattern,
                scope instanceof Outcome.Granted<String> g ? Outcome.granted(within + g.value()) : scope,
                year);
    }

    /** The next free number of a kind's series on a shelf, or why there is none. */
    public Outcome<NumberKey> next(Kind kind, long shelf, Map<String, String> facts) {
        Counting c = counting(kind, shelf, facts);
        if (!(c.scope() instanceof Outcome.Granted<String> scope)) {
            return Outcome.refused(c.scope().refusal().orElseThrow());
        }
        for (int tries = 0; tries < TRIES; tries++) {
            OptionalLong back = ranges.draw(c.series().id(), scope.value());
            long value = back.isPresent()
                    ? back.getAsLong()
                    : numbers.draw(c.series().id(), scope.value());
            NumberKey number = NumberKey.of(
                            c.pattern().render(value, c.year(), facts).orElseThrow(Refused::new))
                    .orElseThrow(Refused::new);
            if (!numbers.isUsed(kind.aspect(), number)) return Outcome.granted(number);
        }
        return Outcome.refused("series.used", "The next thousand numbers of the series are used.", "Type a number.");
    }

    /**
     * The number of a new document: the one that somebody typed, where it is free and theirs to take, or the next one of the series.
     *
     * @param typed empty to draw
     */
    public Outcome<NumberKey> take(long person, Kind kind, long shelf, String typed, Map<String, String> facts) {
        if (typed.isBlank()) return next(kind, shelf, facts);
        Outcome<NumberKey> wanted = NumberKey.of(typed);
        if (!(wanted instanceof Outcome.Granted<NumberKey> granted)) return wanted;
        NumberKey number = granted.value();
        if (numbers.isUsed(kind.aspect(), number)) {
            return Outcome.refused(
                    "number.used",
                    number.number() + " is used for a " + kind.aspect().name().toLowerCase(Locale.ROOT) + " already.",
                    "Choose another number, or empty the field to draw the next of the series.");
        }
        Optional<Refusal> reserved = reserved(person, kind, shelf, number, facts);
        if (reserved.isPresent()) return Outcome.refused(reserved.get());
        typed(kind, shelf, number, facts);
        return wanted;
    }

    /**
     * The numbers that would be drawn next, without drawing them: those that are used already are passed over.
     *
     * @param most how many are wanted
     */
    public Outcome<List<String>> ahead(Kind kind, long shelf, Map<String, String> facts, int most) {
        Counting c = counting(kind, shelf, facts);
        if (!(c.scope() instanceof Outcome.Granted<String> scope)) {
            return Outcome.refused(c.scope().refusal().orElseThrow());
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
                List.of(kind.aspect()), candidates.stream().map(NumberKey::key).toList());
        return Outcome.granted(candidates.stream()
                .filter(n -> !used.contains(n.key()))
                .map(NumberKey::number)
                .limit(most)
                .toList());
    }

    /** Why somebody may not type a number that the house reserved ahead; nothing when they may. */
    public Optional<Refusal> reserved(long person, Kind kind, long shelf, NumberKey number, Map<String, String> facts) {
        Counting c = counting(kind, shelf, facts);
        OptionalLong counter = c.pattern().counterIn(number.number(), c.year(), facts);
        if (counter.isEmpty() || !(c.scope() instanceof Outcome.Granted<String> scope)) return Optional.empty();
        return ranges.reserving(c.series().id(), scope.value(), counter.getAsLong())
                .flatMap(r -> RangeRules.use(number.number(), r.forWhom(), r.forName(), person));
    }

    /** A number was typed: one that fits the series pushes its counter on. */
    public void typed(Kind kind, long shelf, NumberKey number, Map<String, String> facts) {
        Counting c = counting(kind, shelf, facts);
        OptionalLong counter = c.pattern().counterIn(number.number(), c.year(), facts);
        if (counter.isPresent() && c.scope() instanceof Outcome.Granted<String> scope) {
            numbers.push(c.series().id(), scope.value(), counter.getAsLong());
        }
    }
}
