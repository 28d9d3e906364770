package mintshelf.app.use.round;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Acts;
import mintshelf.app.use.FallingSignOffs;
import mintshelf.app.use.Moves;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Recorder;
import mintshelf.app.use.Refused;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sight;
import mintshelf.app.use.Telling;
import mintshelf.core.access.Place;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.route.SignOffLine;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOffRules;
import org.springframework.stereotype.Service;

/** Sends documents to review together: who will be asked is seen before, then it happens whole or not at all. */
@Service
public class SendToReview {
    private final Sight sight;
    private final DocumentStore documents;
    private final HouseStore house;
    private final HoldStore holds;
    private final RoundStore rounds;
    private final Moves moves;
    private final FallingSignOffs signOffs;
    private final Telling telling;
    private final Acts acts;
    private final Recorder recorder;
    private final Settings settings;
    private final Clock clock;

    public SendToReview(
            Sight sight,
            DocumentStore documents,
            HouseStore house,
            HoldStore holds,
            RoundStore rounds,
            Moves moves,
            FallingSignOffs signOffs,
            Telling telling,
            Acts acts,
            Recorder recorder,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.house = house;
        this.holds = holds;
        this.rounds = rounds;
        this.moves = moves;
        this.signOffs = signOffs;
        this.telling = telling;
        this.acts = acts;
        this.recorder = recorder;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A document of the plan.
     *
     * @param endsHold whether the actor holds it: sending ends that check-out
     */
    public record Row(Seen seen, boolean endsHold, List<Refusal> inTheWay) {}

    /** Whom a line of the rule asks, by when; of {@code candidates} one may be named. */
    public record Line(SignOffLine line, String roleName, LocalDate due, List<PersonStore.Person> candidates) {}

    /** What will happen. It opens when no row and no line has anything in the way. */
    public record Plan(List<Row> rows, List<Line> lines, Optional<Refusal> refusal) {
        public boolean opens() {
            return refusal.isEmpty()
                    && !rows.isEmpty()
                    && rows.stream().allMatch(r -> r.inTheWay().isEmpty());
        }
    }

    public Plan plan(Actor actor, Collection<Long> items) {
        List<Seen> all = List.copyOf(sight.of(actor, items).values());
        if (all.isEmpty() || all.stream().anyMatch(s -> !s.all())) throw new NotThere();
        return plan(actor, all);
    }

    private Plan plan(Actor actor, List<Seen> all) {
        List<Row> rows = new ArrayList<>();
        Set<List<SignOffLine>> rules = new LinkedHashSet<>();
        Map<Long, Long> inRounds =
                rounds.openRounds(all.stream().map(s -> s.spine().id()).toList());
        for (Seen seen : all) {
            Document document = seen.document();
            Route route = house.edition(document.current().stage().edition());
            Optional<Move> send = route.opensRound(document.current().stage().code());
            boolean mine =
                    document.holder().filter(h -> h.person() == actor.person()).isPresent();
            rows.add(new Row(seen, mine, inTheWay(actor, document, send, inRounds.containsKey(document.id()), mine)));
            send.flatMap(m -> route.decided(m.to())).ifPresent(m -> rules.add(m.signOffs()));
        }
        Optional<Refusal> refusal = Optional.empty();
        List<Line> lines = new ArrayList<>();
        if (rules.size() > 1) {
            refusal = Optional.of(Refusal.of(
                    "round.rules",
                    "These documents are signed by different people.",
                    "Send those of one kind together, the others apart."));
        } else if (rules.size() == 1) {
            lines = lines(all, rules.iterator().next());
            Optional<Line> nobody =
                    lines.stream().filter(l -> l.candidates().isEmpty()).findFirst();
            refusal = nobody.map(l -> Refusal.of(
                    "round.nobody",
                    "Nobody can sign “" + l.line().meaning() + "”: no "
                            + l.roleName().toLowerCase(java.util.Locale.ROOT) + " here has not worked on it.",
                    "A data manager can give somebody the role."));
        }
        return new Plan(rows, lines, refusal);
    }

    private List<Refusal> inTheWay(Actor actor, Document document, Optional<Move> send, boolean inRound, boolean mine) {
        if (inRound) {
            return List.of(
                    Refusal.of("round.open", document.number() + " is in review already.", "Look at its round."));
        }
        if (send.isEmpty()) {
            return List.of(Refusal.of(
                    "route.no_review",
                    document.number() + " is " + document.current().stage().name()
                            + "; from there nothing goes to review.",
                    "Start its next revision, or leave it out."));
        }
        // The actor's own check-out ends in the same act.
        return MoveRules.ask(send.get(), document, actor.access(), moves.emptyFacts(document)).stream()
                .filter(r -> !(mine && r.code().equals("gate.held")))
                .toList();
    }

    private List<Line> lines(List<Seen> all, List<SignOffLine> rule) {
        Set<Long> authors = new HashSet<>();
        for (Seen seen : all) {
            long revision = seen.document().current().id();
            documents.versions(seen.spine().id()).stream()
                    .filter(v -> v.revision() == revision && v.madeBy() != VersionRow.MadeBy.STAMPED)
                    .forEach(v -> authors.add(v.author()));
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
     * Sends the documents.
     *
     * @param named whom a line of the rule asks by name, by the line's place; others ask everybody with the role
     * @param expected the head versions that the page showed, by document
     * @return the address of the round
     */
    public String send(
            Actor actor,
            Collection<Long> items,
            String key,
            String note,
            Map<Integer, Long> named,
            Map<Long, Integer> expected) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            for (Seen seen : all) {
                if (!seen.all()) throw new NotThere();
                Integer version = expected.get(seen.spine().id());
                if (version != null) Sight.expectVersion(seen, version);
            }
            Plan plan = plan(actor, all);
            refuseUnlessOpen(plan);
            Instant now = clock.instant();
            for (Row row : plan.rows()) {
                row.seen().document().holder().ifPresent(h -> {
                    holds.end(h.hold(), HoldStore.Ending.REVIEW, actor.person(), "", now);
                    recorder.note(
                            actor,
                            row.seen().spine().id(),
                            "hold.undone",
                            row.seen().document().head().number(),
                            "ended the check-out by sending it to review",
                            "");
                });
            }
            long bundle =
                    rounds.openBundle(all.stream().map(s -> s.spine().id()).toList(), actor.person(), now);
            long id = open(actor, bundle, all, plan.lines(), words, named, now);
            for (Seen seen : all) {
                Document document =
                        documents.spine(seen.spine().id()).orElseThrow().document();
                Route route = house.edition(document.current().stage().edition());
                moves.carryOut(
                        actor,
                        document,
                        route,
                        route.opensRound(document.current().stage().code()).orElseThrow(),
                        words,
                        Optional.empty());
            }
            return "/rounds/" + id;
        });
    }

    private long open(
            Actor actor,
            long bundle,
            List<Seen> all,
            List<Line> lines,
            String note,
            Map<Integer, Long> named,
            Instant now) {
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

    private static void refuseUnlessOpen(Plan plan) {
        if (plan.opens()) return;
        List<String> why = new ArrayList<>();
        plan.refusal().ifPresent(r -> why.add(r.says()));
        plan.rows().forEach(row -> row.inTheWay().forEach(r -> why.add(r.says())));
        throw Refused.because("send.refused", String.join(" ", why), "Nothing was sent.");
    }
}
