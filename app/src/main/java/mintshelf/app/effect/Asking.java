package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Place;
import mintshelf.core.base.Refusal;
import mintshelf.core.route.SignOffLine;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOffRules;
import org.springframework.stereotype.Component;

/** Opens rounds: who is asked about what, until when. Within the caller's transaction. */
@Component
public class Asking {
    private final RevisionStore revisions;
    private final HouseStore house;
    private final RoundStore rounds;
    private final FallingSignOffs signOffs;
    private final Telling telling;
    private final Settings settings;
    private final Clock clock;

    public Asking(
            RevisionStore revisions,
            HouseStore house,
            RoundStore rounds,
            FallingSignOffs signOffs,
            Telling telling,
            Settings settings,
            Clock clock) {
        this.revisions = revisions;
        this.house = house;
        this.rounds = rounds;
        this.signOffs = signOffs;
        this.telling = telling;
        this.settings = settings;
        this.clock = clock;
    }

    /** Whom a line of the rule asks, by when; of {@code candidates} one may be named. */
    public record AskedLine(SignOffLine line, String roleName, LocalDate due, List<PersonStore.Person> candidates) {}

    /**
     * What a sender wants otherwise than the rule says; all by the line's place.
     *
     * @param named whom a line asks by name; others ask everybody with the role
     * @param also who signs besides
     * @param due until when
     */
    public record Wishes(Map<Integer, Long> named, Map<Integer, Long> also, Map<Integer, LocalDate> due) {
        public Wishes {
            named = Map.copyOf(named);
            also = Map.copyOf(also);
            due = Map.copyOf(due);
        }

        public static Wishes named(Map<Integer, Long> named) {
            return new Wishes(named, Map.of(), Map.of());
        }
    }

    /** What is in the way when nobody could answer a line. */
    public static Optional<Refusal> nobody(List<AskedLine> lines) {
        return lines.stream()
                .filter(l -> l.candidates().isEmpty())
                .findFirst()
                .map(l -> Refusal.of(
                        "round.nobody",
                        "Nobody can sign “" + l.line().meaning() + "”: no "
                                + l.roleName().toLowerCase(Locale.ROOT)
                                + " here has not worked on it.",
                        "A data manager can give somebody the role."));
    }

    /** Whom the lines of a rule ask about these documents, with who could answer each. */
    public List<AskedLine> lines(List<Seen> all, List<SignOffLine> rule) {
        Set<Long> authors = new HashSet<>();
        for (Seen seen : all) {
            authors.addAll(revisions.authors(seen.document().current().id()));
        }
        return lines(authors, all.stream().map(s -> s.document().place()).toList(), rule);
    }

    /** As {@link #lines(List, List)}, about what these people worked on at these places. */
    public List<AskedLine> lines(Set<Long> authors, List<Place> places, List<SignOffLine> rule) {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        int days = 0;
        int step = 0;
        List<AskedLine> lines = new ArrayList<>();
        for (SignOffLine line : rule) {
            if (line.step() != step) days += line.days();
            step = line.step();
            lines.add(new AskedLine(
                    line,
                    house.roleName(line.role()),
                    SignOffRules.due(today, days),
                    telling.candidates(line.role(), authors, places)));
        }
        return lines;
    }

    private static Optional<Long> chosen(AskedLine line, Long person) {
        if (person != null && line.candidates().stream().noneMatch(c -> c.id() == person)) {
            throw Refused.because(
                    "round.person", "Who was chosen cannot sign this any more.", "Choose again; nothing was sent.");
        }
        return Optional.ofNullable(person);
    }

    /**
     * Opens a round over documents and asks the first step.
     *
     * @param sender whose round it is, to whom it comes back
     */
    public long open(
            Actor actor, long sender, long bundle, List<Seen> all, List<AskedLine> lines, String note, Wishes wishes) {
        Instant now = clock.instant();
        List<RoundStore.Item> items =
                all.stream().map(s -> signOffs.item(s.document())).toList();
        long id = rounds.open(bundle, items, sender, note, now);
        for (int i = 0; i < lines.size(); i++) {
            AskedLine line = lines.get(i);
            Optional<Long> person = chosen(line, wishes.named().get(i));
            Optional<Long> also = chosen(line, wishes.also().get(i));
            LocalDate due = wishes.due().getOrDefault(i, line.due());
            if (due.isBefore(LocalDate.ofInstant(now, settings.zone()))) {
                throw Refused.because(
                        "round.due", "That day is over.", "Choose today or a day to come; nothing was sent.");
            }
            if (also.isPresent()
                    && (also.equals(person)
                            || (person.isEmpty() && line.candidates().size() < 2))) {
                throw Refused.because(
                        "round.twice",
                        "One person cannot sign “" + line.line().meaning() + "” twice.",
                        "Choose two; nothing was sent.");
            }
            rounds.ask(id, line.line(), person, due);
            also.ifPresent(p -> rounds.ask(id, line.line(), also, due));
        }
        Round round = rounds.round(id).orElseThrow();
        Set<Long> authors = rounds.authors(List.of(id)).getOrDefault(id, Set.of());
        List<Place> places = all.stream().map(s -> s.document().place()).toList();
        for (Ask ask : round.waiting()) telling.ask(actor, round, ask, authors, places, note);
        return id;
    }
}
