package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
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
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.BesideStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.access.Place;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.route.Move;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.RuleDays;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.core.signoff.SignOffRules;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Opens rounds: who is asked about what, until when. Within the caller's transaction. */
@Component
public class Asking {
    private final RevisionStore revisions;
    private final HouseStore house;
    private final RuleStore rules;
    private final GroupStore groups;
    private final RoundStore rounds;
    private final FallingSignOffs signOffs;
    private final Telling telling;
    private final Settings settings;
    private final Clock clock;

    public Asking(
            RevisionStore revisions,
            HouseStore house,
            RuleStore rules,
            GroupStore groups,
            RoundStore rounds,
            FallingSignOffs signOffs,
            Telling telling,
            Settings settings,
            Clock clock) {
        this.revisions = revisions;
        this.house = house;
        this.rules = rules;
        this.groups = groups;
        this.rounds = rounds;
        this.signOffs = signOffs;
        this.telling = telling;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * Whom a line of the rule asks, by when; of {@code candidates} one may be named.
     *
     * @param roleName name of the role or the group; empty where a person is asked
     */
    public record AskedLine(SignOffLine line, String roleName, LocalDate due, List<PersonStore.Person> candidates) {
        /** Whether the sender may name one of them: where all are asked, or one person is, nobody is to be chosen. */
        public boolean isOpen() {
            return !line.asksEverybody() && line.who().kind() != Asked.Kind.PERSON;
        }

        /** Whom it asks unless somebody is named: "any checker", "2 of Checking", "all of Checking: Hedda, Ines". */
        public String anybody() {
            String names = String.join(
                    ", ", candidates.stream().map(PersonStore.Person::name).toList());
            if (line.who().kind() == Asked.Kind.PERSON) return names;
            if (line.asksEverybody()) return "all of " + roleName + ": " + names;
            if (line.who().kind() == Asked.Kind.ROLE && line.needed() == 1) {
                return "any " + roleName.toLowerCase(Locale.ROOT);
            }
            return line.needed() + " of " + roleName;
        }
    }

    /** What is asked of documents that are decided together: the lines of their rules, and what a return does. */
    public record Demand(List<SignOffLine> lines, Policy policy) {}

    /**
     * What a sender lays beside, to look at and not decided.
     *
     * @param typed as {@link mintshelf.core.signoff.LookAt} reads it
     * @param ticked versions of documents
     */
    public record Beside(String typed, Map<Long, Integer> ticked) {
        public Beside {
            ticked = Map.copyOf(ticked);
        }
    }

    /**
     * What a sender wants otherwise than the rule says; all by the line's place.
     *
     * @param named whom a line asks by name; others ask everybody with the role
     * @param also who signs besides
     * @param due until when
     * @param beside what is to lie beside
     */
    public record Wishes(
            Map<Integer, Long> named, Map<Integer, Long> also, Map<Integer, LocalDate> due, Beside beside) {
        public Wishes {
            named = Map.copyOf(named);
            also = Map.copyOf(also);
            due = Map.copyOf(due);
        }

        public Wishes(Map<Integer, Long> named, Map<Integer, Long> also, Map<Integer, LocalDate> due) {
            this(named, also, due, new Beside("", Map.of()));
        }

        public static Wishes named(Map<Integer, Long> named) {
            return new Wishes(named, Map.of(), Map.of());
        }
    }

    /** What is in the way when nobody could answer a line. */
    public static Optional<Refusal> nobody(List<AskedLine> lines) {
        return lines.stream()
                .filter(l -> l.candidates().size() < Math.max(1, l.line().needed()))
                .findFirst()
                .map(Asking::tooFew);
    }

    private static Refusal tooFew(AskedLine l) {
        String what = "“" + l.line().meaning() + "”";
        if (l.line().who().kind() == Asked.Kind.PERSON) {
            return Refusal.of(
                    "round.nobody",
                    "Whom the sign-off rule names for " + what + " has worked on it, may not sign here, or has left.",
                    "A data manager can change the rule.");
        }
        if (!l.candidates().isEmpty()) {
            return Refusal.of(
                    "round.nobody",
                    what + " asks " + l.line().needed() + " of " + l.roleName() + ", and "
                            + Numbers.count(l.candidates().size(), "person", "people") + " could sign it here.",
                    "A data manager can change the rule, or give more people the right.");
        }
        if (l.line().who().kind() == Asked.Kind.GROUP) {
            return Refusal.of(
                    "round.nobody",
                    "Nobody can sign " + what + ": nobody in " + l.roleName()
                            + " may sign here and has not worked on it.",
                    "A data manager can put somebody into the group.");
        }
        return Refusal.of(
                "round.nobody",
                "Nobody can sign " + what + ": no " + l.roleName().toLowerCase(Locale.ROOT)
                        + " here has not worked on it.",
                "A data manager can give somebody the role.");
    }

    /** What moves ask together by their sign-off rules, as these stand now. */
    public Demand demand(Collection<Move> decided) {
        List<SignOffRule> all = decided.stream()
                .map(Move::signOff)
                .filter(code -> !code.isEmpty())
                .distinct()
                .map(rules::signOff)
                .toList();
        return new Demand(
                SignOffRules.union(all.stream().map(SignOffRule::asked).toList()),
                all.stream().map(SignOffRule::policy).reduce(Policy.FIRST_RETURN, Policy::and));
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
        return RuleDays.of(rule, today(), rules.days()).stream()
                .map(span -> new AskedLine(
                        span.line(),
                        roleName(span.line()),
                        span.due(),
                        telling.candidates(span.line(), authors, places)))
                .toList();
    }

    /** The day of the house. */
    public LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), settings.zone());
    }

    private String roleName(SignOffLine line) {
        return switch (line.who().kind()) {
            case ROLE -> house.roleName(line.who().code());
            case GROUP -> groups.name(line.who().id());
            case PERSON -> "";
        };
    }

    private static Optional<Long> chosen(AskedLine line, @Nullable Long person) {
        if (person != null && line.candidates().stream().noneMatch(c -> c.id() == person)) {
            throw Refused.because(
                    "round.person", "Who was chosen cannot sign this any more.", "Choose again; nothing was sent.");
        }
        return Optional.ofNullable(person);
    }

    /** What a round asks, as it was seen, with what the sender wants otherwise and lays beside. */
    public record Asks(
            List<AskedLine> lines, Policy policy, String note, Wishes wishes, List<BesideStore.Paper> papers) {
        public Asks {
            papers = List.copyOf(papers);
        }

        public Asks(List<AskedLine> lines, Policy policy, String note, Wishes wishes) {
            this(lines, policy, note, wishes, List.of());
        }
    }

    /**
     * Opens a round over documents and asks the first step.
     *
     * @param sender whose round it is, to whom it comes back
     */
    public long open(Actor actor, long sender, long bundle, List<Seen> all, Asks asks) {
        Instant now = clock.instant();
        List<RoundStore.Item> items =
                all.stream().map(s -> signOffs.item(s.document())).toList();
        long id = rounds.open(bundle, items, sender, asks.note(), asks.policy(), now);
        for (int i = 0; i < asks.lines().size(); i++) {
            AskedLine line = asks.lines().get(i);
            LocalDate due = asks.wishes().due().getOrDefault(i, line.due());
            if (due.isBefore(LocalDate.ofInstant(now, settings.zone()))) {
                throw Refused.because(
                        "round.due", "That day is over.", "Choose today or a day to come; nothing was sent.");
            }
            ask(id, line, asks.wishes().named().get(i), asks.wishes().also().get(i), due);
        }
        Round round = rounds.round(id).orElseThrow();
        Set<Long> authors = rounds.authors(List.of(id)).getOrDefault(id, Set.of());
        List<Place> places = all.stream().map(s -> s.document().place()).toList();
        for (Ask ask : round.waiting()) telling.ask(actor, round, ask, authors, places, asks.note());
        return id;
    }

    private void ask(long id, AskedLine line, @Nullable Long named, @Nullable Long besides, LocalDate due) {
        SignOffLine rule = line.line();
        if (rule.who().kind() == Asked.Kind.PERSON) {
            rounds.ask(id, rule, Optional.of(rule.who().id()), due);
            return;
        }
        if (rule.asksEverybody()) {
            // Each is asked by name: so a deputy can stand in, and it is seen of whom it waits.
            line.candidates().forEach(p -> rounds.ask(id, rule.needing(1), Optional.of(p.id()), due));
            return;
        }
        Optional<Long> person = chosen(line, named);
        Optional<Long> also = chosen(line, besides);
        boolean alone = person.isEmpty() && line.candidates().size() < rule.needed() + 1;
        if (also.isPresent() && (also.equals(person) || alone)) {
            throw Refused.because(
                    "round.twice",
                    "One person cannot sign “" + rule.meaning() + "” twice.",
                    "Choose two; nothing was sent.");
        }
        if (person.isPresent()) {
            // Who is named signs; whoever the rule wants besides is anybody whom it asks.
            rounds.ask(id, rule.needing(1), person, due);
            if (rule.needed() > 1) rounds.ask(id, rule.needing(rule.needed() - 1), Optional.empty(), due);
        } else {
            rounds.ask(id, rule, Optional.empty(), due);
        }
        also.ifPresent(p -> rounds.ask(id, rule.needing(1), also, due));
    }
}
