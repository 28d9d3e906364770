package mintshelf.app.use.round;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Moves;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.route.SignOffLine;
import org.springframework.stereotype.Service;

/** Sends documents to review together: who will be asked is seen before, then it happens whole or not at all. */
@Service
public class SendToReview {
    private final CheckSheets checks;
    private final Sight sight;
    private final DocumentStore documents;
    private final HouseStore house;
    private final HoldStore holds;
    private final RoundStore rounds;
    private final Moves moves;
    private final Asking asking;
    private final OrderStore orders;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public SendToReview(
            CheckSheets checks,
            Sight sight,
            DocumentStore documents,
            HouseStore house,
            HoldStore holds,
            RoundStore rounds,
            Moves moves,
            Asking asking,
            OrderStore orders,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.checks = checks;
        this.sight = sight;
        this.documents = documents;
        this.house = house;
        this.holds = holds;
        this.rounds = rounds;
        this.moves = moves;
        this.asking = asking;
        this.orders = orders;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * A document of the plan.
     *
     * @param endsHold whether the actor holds it: sending ends that check-out
     * @param silent why its release will write nothing into its sheet; empty where something is written, and where nothing is meant
     *     to be
     */
    public record Row(Seen seen, boolean endsHold, List<Refusal> inTheWay, Optional<String> silent) {
        Row(Seen seen, boolean endsHold, List<Refusal> inTheWay) {
            this(seen, endsHold, inTheWay, Optional.empty());
        }

        Row saying(Optional<String> why) {
            return new Row(seen, endsHold, inTheWay, why);
        }
    }

    /** What will happen. It opens when no row and no line has anything in the way. */
    public record Plan(List<Row> rows, List<Asking.Line> lines, Optional<Refusal> refusal) {
        public boolean opens() {
            return refusal.isEmpty()
                    && !rows.isEmpty()
                    && rows.stream().allMatch(r -> r.inTheWay().isEmpty());
        }
    }

    public Plan plan(Actor actor, Collection<Long> items) {
        List<Seen> all = List.copyOf(sight.of(actor, items).values());
        if (all.isEmpty() || all.stream().anyMatch(s -> !s.all())) throw new NotThere();
        Plan plan = plan(actor, all);
        return new Plan(plan.rows().stream().map(this::told).toList(), plan.lines(), plan.refusal());
    }

    private Row told(Row row) {
        Document document = row.seen().document();
        Route route = house.edition(document.current().stage().edition());
        return row.saying(route.opensRound(document.current().stage().code())
                .flatMap(send -> route.decided(send.to()))
                .flatMap(release ->
                        moves.silent(route, release, row.seen().spine().content())));
    }

    private Plan plan(Actor actor, List<Seen> all) {
        List<Row> rows = new ArrayList<>();
        Set<List<SignOffLine>> rules = new LinkedHashSet<>();
        List<Long> ids = all.stream().map(s -> s.spine().id()).toList();
        Map<Long, Long> inRounds = rounds.openRounds(ids);
        Map<Long, OrderStore.On> onOrders = orders.open(ids);
        for (Seen seen : all) {
            Document document = seen.document();
            Route route = house.edition(document.current().stage().edition());
            Optional<Move> send = route.opensRound(document.current().stage().code());
            boolean mine =
                    document.holder().filter(h -> h.person() == actor.person()).isPresent();
            if (onOrders.containsKey(document.id())) {
                rows.add(new Row(seen, false, List.of(goesWith(document, onOrders.get(document.id())))));
                continue;
            }
            rows.add(new Row(seen, mine, inTheWay(actor, document, send, inRounds.containsKey(document.id()), mine)));
            send.flatMap(m -> route.decided(m.to())).ifPresent(m -> rules.add(m.signOffs()));
        }
        Optional<Refusal> refusal = Optional.empty();
        List<Asking.Line> lines = List.of();
        if (rules.size() > 1) {
            refusal = Optional.of(Refusal.of(
                    "round.rules",
                    "These documents are signed by different people.",
                    "Send those of one kind together, the others apart."));
        } else if (rules.size() == 1) {
            lines = asking.lines(all, rules.iterator().next());
            refusal = Asking.nobody(lines);
        }
        return new Plan(rows, lines, refusal);
    }

    private static Refusal goesWith(Document document, OrderStore.On order) {
        return Refusal.of(
                "order.goes_with",
                document.number() + " goes before the board with " + order.number() + ".",
                "Put the order before the board.");
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
        return Stream.concat(
                        MoveRules.ask(send.get(), document, actor.access(), moves.emptyFacts(document)).stream()
                                .filter(r -> !(mine && r.code().equals("gate.held"))),
                        checks.inTheWay(document, true).stream())
                .toList();
    }

    /**
     * Sends the documents.
     *
     * @param wishes what the sender wants otherwise than the rule says
     * @param expected the head versions that the page showed, by document
     * @return the address of the round
     */
    public String send(
            Actor actor,
            Collection<Long> items,
            String key,
            String note,
            Asking.Wishes wishes,
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
            long id = asking.open(actor, bundle, all, plan.lines(), words, wishes);
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

    /** As {@link #send(Actor, Collection, String, String, Asking.Wishes, Map)}, with people named alone. */
    public String send(
            Actor actor,
            Collection<Long> items,
            String key,
            String note,
            Map<Integer, Long> named,
            Map<Long, Integer> expected) {
        return send(actor, items, key, note, Asking.Wishes.named(named), expected);
    }

    private static void refuseUnlessOpen(Plan plan) {
        if (plan.opens()) return;
        List<String> why = new ArrayList<>();
        plan.refusal().ifPresent(r -> why.add(r.says()));
        plan.rows().forEach(row -> row.inTheWay().forEach(r -> why.add(r.says())));
        throw Refused.because("send.refused", String.join(" ", why), "Nothing was sent.");
    }
}
