package mintshelf.app.use.house;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RangeStore;
import mintshelf.app.store.document.RangeStore.Range;
import mintshelf.app.store.house.SeriesStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.numbering.RangeRules;
import org.springframework.stereotype.Service;

/** Numbers reserved ahead: for somebody who draws outside, for a job that comes; and given back. */
@Service
public class KeepRanges {
    private final RangeStore ranges;
    private final NumberStore numbers;
    private final SeriesStore series;
    private final PersonStore people;
    private final ReadSeries read;
    private final Acts acts;
    private final Recorder recorder;
    private final Telling telling;
    private final Clock clock;

    KeepRanges(
            RangeStore ranges,
            NumberStore numbers,
            SeriesStore series,
            PersonStore people,
            ReadSeries read,
            Acts acts,
            Recorder recorder,
            Telling telling,
            Clock clock) {
        this.ranges = ranges;
        this.numbers = numbers;
        this.series = series;
        this.people = people;
        this.read = read;
        this.acts = acts;
        this.recorder = recorder;
        this.telling = telling;
        this.clock = clock;
    }

    /**
     * Takes the next numbers of a counter out of it.
     *
     * @param scope within what the counter counts; one of those that the series' page shows
     * @param forWhom login or name of whom they are for; empty where whoever files may type them
     */
    public String reserve(Actor actor, String key, String code, String scope, int count, String forWhom, String note) {
        HouseRules.ask(actor);
        RangeRules.ask(count).ifPresent(r -> {
            throw new Refused(r);
        });
        String said = Texts.required("What they are for", note, 200).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Map.Entry<Long, SeriesRule> of = series(code);
            if (read.counters(actor, code).stream().noneMatch(c -> c.scope().equals(scope))) throw new NotThere();
            Optional<Long> person = person(forWhom);
            long first = numbers.draw(of.getKey(), scope);
            long last = first + count - 1;
            numbers.push(of.getKey(), scope, last);
            ranges.reserve(of.getKey(), scope, first, last, person, said, actor.person(), clock.instant());
            String span = read.span(code, scope, first, last);
            String who =
                    person.flatMap(people::person).map(p -> " for " + p.name()).orElse("");
            recorder.noteHouse(
                    actor,
                    "series.reserved",
                    "reserved " + span + " of " + of.getValue().name() + who,
                    said);
            telling.news(
                    actor,
                    person.map(Set::of).orElse(Set.of()),
                    "series.reserved",
                    actor.name() + " reserved " + span + " for you: " + said,
                    "/shelves");
            return "/house/series/" + code;
        });
    }

    private Map.Entry<Long, SeriesRule> series(String code) {
        return series.all().entrySet().stream()
                .filter(s -> s.getValue().code().equals(code))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    private Optional<Long> person(String said) {
        if (said.isBlank()) return Optional.empty();
        List<String> logins = people.called(said.strip());
        if (logins.size() == 1) {
            return people.byLogin(logins.get(0)).map(PersonStore.Person::id);
        }
        throw Refused.because(
                "fact.person",
                logins.isEmpty()
                        ? "“" + said.strip() + "” is nobody here."
                        : Numbers.count(logins.size(), "person is", "people are") + " called “" + said.strip() + "”.",
                logins.isEmpty()
                        ? "Write the name of somebody, or nobody; nothing was reserved."
                        : "Write one of " + String.join(", ", logins) + "; nothing was reserved.");
    }

    /** Gives a range back: whatever of it is unused is drawn again, before the counter goes on. */
    public String giveBack(Actor actor, String key, String code, long id) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            Map.Entry<Long, SeriesRule> of = series(code);
            Range range = ranges.lock(id).filter(r -> r.series() == of.getKey()).orElseThrow(NotThere::new);
            if (range.isReserved()) {
                ranges.giveBack(id);
                recorder.noteHouse(
                        actor,
                        "series.given_back",
                        "gave " + read.span(code, range.scope(), range.first(), range.last()) + " of "
                                + of.getValue().name() + " back",
                        range.note());
            }
            return "/house/series/" + code;
        });
    }
}
