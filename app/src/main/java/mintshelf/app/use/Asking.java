package mintshelf.app.use;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.DocumentStore;
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
    private final DocumentStore documents;
    private final HouseStore house;
    private final RoundStore rounds;
    private final FallingSignOffs signOffs;
    private final Telling telling;
    private final Settings settings;
    private final Clock clock;

    public Asking(
            DocumentStore documents,
            HouseStore house,
            RoundStore rounds,
            FallingSignOffs signOffs,
            Telling telling,
            Settings settings,
            Clock clock) {
        this.documents = documents;
        this.house = house;
        this.rounds = rounds;
        this.signOffs = signOffs;
        this.telling = telling;
        this.settings = settings;
        this.clock = clock;
    }

    /** Whom a line of the rule asks, by when; of {@code candidates} one may be named. */
    public record Line(SignOffLine line, String roleName, LocalDate due, List<PersonStore.Person> candidates) {}

    /** What is in the way when nobody could answer a line. */
    public static Optional<Refusal> nobody(List<Line> lines) {
        return lines.stream()
                .filter(l -> l.candidates().isEmpty())
                .findFirst()
                .map(l -> Refusal.of(
                        "round.nobody",
                        "Nobody can sign “" + l.line().meaning() + "”: no "
                                + l.roleName().toLowerCase(java.util.Locale.ROOT)
                                + " here has not worked on it.",
                        "A data manager can give somebody the role."));
    }

    /** Whom the lines of a rule ask about these documents, with who could answer each. */
    public List<Line> lines(List<Seen> all, List<SignOffLine> rule) {
        Set<Long> authors = new HashSet<>();
        for (Seen seen : all) {
            authors.addAll(documents.authors(seen.document().current().id()));
        }
        List<Place> places = all.stream().map(s -> s.document().place()).toList();
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        int days = 0;
        int step = 0;
        List<Line> lines = new ArrayList<>();
        for (SignOffLine line : rule) {
            if (line.step() != step) days += line.days();
            step = line.step();
            lines.add(new Line(
                    line,
                    house.roleName(line.role()),
                    SignOffRules.due(today, days),
                    telling.candidates(line.role(), authors, places)));
        }
        return lines;
    }

    /**
     * Opens a round over documents and asks the first step.
     *
     * @param named whom a line asks by name, by the line's place; others ask everybody with the role
     */
    public long open(
            Actor actor, long bundle, List<Seen> all, List<Line> lines, String note, Map<Integer, Long> named) {
        Instant now = clock.instant();
        List<RoundStore.Item> items =
                all.stream().map(s -> signOffs.item(s.document())).toList();
        long id = rounds.open(bundle, items, actor.person(), note, now);
        for (int i = 0; i < lines.size(); i++) {
            Line line = lines.get(i);
            Optional<Long> person = Optional.ofNullable(named.get(i));
            if (person.isPresent() && line.candidates().stream().noneMatch(c -> c.id() == person.get())) {
                throw Refused.because(
                        "round.person", "Who was chosen cannot sign this any more.", "Choose again; nothing was sent.");
            }
            rounds.ask(id, line.line(), person, line.due());
        }
        Round round = rounds.round(id).orElseThrow();
        Set<Long> authors = rounds.authors(List.of(id)).getOrDefault(id, Set.of());
        List<Place> places = all.stream().map(s -> s.document().place()).toList();
        for (Ask ask : round.waiting()) telling.ask(actor, round, ask, authors, places, note);
        return id;
    }
}
