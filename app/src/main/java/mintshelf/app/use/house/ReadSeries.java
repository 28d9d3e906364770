package mintshelf.app.use.house;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.SeriesStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Aspect;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.numbering.NumberPattern;
import org.springframework.stereotype.Service;

/** Number series as their keeper reads them: where each counter stands, which numbers were left out. */
@Service
public class ReadSeries {
    private static final int MOST = 60;
    /** Numbers behind a counter that are looked at for gaps. */
    private static final int BACK = 300;

    private static final int GAPS = 12;
    private final SeriesStore series;
    private final NumberStore numbers;
    private final HouseStore house;
    private final ShelfStore shelves;
    private final Settings settings;
    private final Clock clock;

    ReadSeries(
            SeriesStore series,
            NumberStore numbers,
            HouseStore house,
            ShelfStore shelves,
            Settings settings,
            Clock clock) {
        this.series = series;
        this.numbers = numbers;
        this.house = house;
        this.shelves = shelves;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A counter of a series.
     *
     * @param where within what it counts, in words; empty for the whole house
     * @param next its next numbers
     * @param gaps numbers behind its next one that nobody has; of the last 300 counted, the first twelve
     * @param more whether there are more gaps than those
     */
    public record Counted(String where, String around, List<String> next, List<String> gaps, boolean more) {}

    public List<Counted> counters(Actor actor, String code) {
        HouseRules.ask(actor);
        Map.Entry<Long, SeriesRule> of = series.all().entrySet().stream()
                .filter(s -> s.getValue().code().equals(code))
                .findFirst()
                .orElseThrow(NotThere::new);
        if (!(NumberPattern.parse(of.getValue().pattern()) instanceof Outcome.Granted<NumberPattern> pattern)) {
            return List.of();
        }
        List<Aspect> aspects = house.kinds().stream()
                .filter(k -> k.numberSeries() == of.getKey())
                .map(Kind::aspect)
                .distinct()
                .toList();
        List<Counted> all = numbers.counters(of.getKey(), MOST).stream()
                .map(c -> counted(c, pattern.value(), aspects))
                .toList();
        boolean begun = !all.isEmpty();
        int year = year();
        // What nobody has drawn from yet begins with its first number.
        return !begun && pattern.value().scopeKey(year, Map.of()) instanceof Outcome.Granted<String> scope
                ? List.of(counted(new NumberStore.Counter(scope.value(), 1), pattern.value(), aspects))
                : all;
    }

    private int year() {
        return clock.instant().atZone(settings.zone()).getYear();
    }

    private Counted counted(NumberStore.Counter counter, NumberPattern pattern, List<Aspect> aspects) {
        String within = counter.within();
        String where = "";
        if (within.matches("(shelf|kind) \\d+: .*")) {
            long id = Long.parseLong(within.substring(within.indexOf(' ') + 1, within.indexOf(':')));
            where = within.startsWith("shelf")
                    ? shelves.shelf(id).map(ShelfStore.Shelf::name).orElse("a shelf that is gone")
                    : house.kinds().stream()
                            .filter(k -> k.id() == id)
                            .map(Kind::name)
                            .findFirst()
                            .orElse("a kind that is gone");
            within = within.substring(within.indexOf(": ") + 2);
        }
        // A counter of another year, or of a fact's value, shows what stands around its numbers; those are not made up
        // here.
        int year = year();
        boolean plain = pattern.facts().isEmpty()
                && pattern.scopeKey(year, Map.of()) instanceof Outcome.Granted<String> now
                && now.value().equals(within);
        List<String> next = new ArrayList<>();
        List<String> gaps = new ArrayList<>();
        if (plain) {
            for (long value = counter.next(); next.size() < 3 && value < counter.next() + 20; value++) {
                String number = number(pattern, value, year);
                if (!isUsed(number, aspects)) next.add(number);
            }
            for (long value = Math.max(1, counter.next() - BACK);
                    value < counter.next() && gaps.size() <= GAPS;
                    value++) {
                String number = number(pattern, value, year);
                if (!isUsed(number, aspects)) gaps.add(number);
            }
        }
        boolean more = gaps.size() > GAPS;
        return new Counted(where, within, next, more ? gaps.subList(0, GAPS) : gaps, more);
    }

    private static String number(NumberPattern pattern, long value, int year) {
        return pattern.render(value, year, Map.of()) instanceof Outcome.Granted<String> n ? n.value() : "";
    }

    private boolean isUsed(String number, List<Aspect> aspects) {
        return NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key
                && aspects.stream().anyMatch(a -> numbers.isUsed(a, key.value()));
    }
}
