package mintshelf.app.use.change;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Moves;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.LineState;
import mintshelf.core.change.OrderLine;
import mintshelf.core.change.OrderRules;
import mintshelf.core.document.Document;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import org.springframework.stereotype.Service;

/** Moves an order and its documents along: the work starts, the board is asked, the order is stopped. All lines together. */
@Service
public class MoveOrder {
    private final CheckSheets checks;
    private final Sight sight;
    private final OrderStore orders;
    private final OrderPaper papers;
    private final DocumentStore documents;
    private final RoundStore rounds;
    private final HouseStore house;
    private final Moves moves;
    private final Telling telling;
    private final Asking asking;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public MoveOrder(
            CheckSheets checks,
            Sight sight,
            OrderStore orders,
            OrderPaper papers,
            DocumentStore documents,
            RoundStore rounds,
            HouseStore house,
            Moves moves,
            Telling telling,
            Asking asking,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.checks = checks;
        this.sight = sight;
        this.orders = orders;
        this.papers = papers;
        this.documents = documents;
        this.rounds = rounds;
        this.house = house;
        this.moves = moves;
        this.telling = telling;
        this.asking = asking;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** The order and its documents, locked together in one order. */
    private record Locked(Seen paper, List<OrderLine> lines, Map<Long, Seen> documents, Route route) {
        Document document(OrderLine line) {
            return documents.get(line.item()).document();
        }

        String stage() {
            return paper.document().current().stage().code();
        }
    }

    private Locked locked(Actor actor, long order) {
        OrderPaper.Locked all = papers.locked(actor, order);
        Route route = house.edition(all.paper().document().current().stage().edition());
        return new Locked(all.paper(), all.lines(), all.documents(), route);
    }

    private static Move move(Actor actor, Locked locked, Effect effect) {
        Move move = locked.route().doing(effect, locked.stage()).orElseThrow(() -> notFrom(locked));
        actor.access().ask(move.who(), locked.paper().document().place()).ifPresent(r -> {
            throw new Refused(r);
        });
        return move;
    }

    private static Refused notFrom(Locked locked) {
        return Refused.because(
                "move.stage",
                locked.paper().document().number() + " is "
                        + locked.paper().document().current().stage().name() + " now.",
                "Look at it again; somebody moved it meanwhile.");
    }

    private static void refuseUnlessEmpty(List<String> why, String kept) {
        if (!why.isEmpty()) throw Refused.because("order.refused", String.join(" ", why), kept);
    }

    /** The work starts: each document's next revision begins, reserved under the order. */
    public String start(Actor actor, long order, String key) {
        return acts.once(actor, key, () -> {
            Locked locked = locked(actor, order);
            Move move = move(actor, locked, Effect.START_LINES);
            List<String> why = new ArrayList<>();
            for (OrderLine line : locked.lines()) {
                OrderRules.start(locked.document(line)).ifPresent(r -> why.add(r.says()));
            }
            refuseUnlessEmpty(why, "No work was started.");
            String number = locked.paper().document().number();
            String inShort = locked.paper().document().title();
            for (OrderLine line : locked.lines()) {
                Document document = locked.document(line);
                long revision = document.pending().isPresent()
                        ? document.pending().get().id()
                        : moves.start(
                                actor,
                                document,
                                Texts.shorten(
                                        number + ": " + Texts.line(line.reason().isEmpty() ? inShort : line.reason()),
                                        200),
                                "");
                orders.setTo(line.id(), revision);
            }
            moves.carryOut(actor, locked.paper().document(), locked.route(), move, "", Optional.empty());
            papers.write(actor, locked.paper().spine().author(), order, "reserved the revisions");
            telling.tell(
                    actor,
                    List.of(locked.paper().spine().author()),
                    "order.started",
                    Optional.empty(),
                    order,
                    actor.name() + " started the work on " + number + "; its revisions are reserved",
                    "/orders/" + order);
            return "/orders/" + order;
        });
    }

    /** What stands between an order under way and its board, and whom the board asks. */
    public record BoardPlan(List<Refusal> inTheWay, List<Asking.Line> asked, Optional<Refusal> nobody) {
        public boolean opens() {
            return inTheWay.isEmpty() && nobody.isEmpty();
        }
    }

    /** Nothing is changed. */
    public BoardPlan boardPlan(Actor actor, long order) {
        List<OrderLine> lines = orders.lines(order);
        List<Long> all = new ArrayList<>(lines.stream().map(OrderLine::item).toList());
        all.add(order);
        Map<Long, Seen> seen = sight.of(actor, all);
        if (seen.size() != all.size() || !seen.get(order).all()) throw new NotThere();
        Route route = house.edition(seen.get(order).current().stage().edition());
        return boardPlan(new Locked(seen.get(order), lines, seen, route));
    }

    private BoardPlan boardPlan(Locked locked) {
        List<Refusal> inTheWay = new ArrayList<>();
        for (OrderLine line : locked.lines()) {
            Document document = locked.document(line);
            LineState state = OrderRules.state(line, document, moves.emptyFacts(document));
            if (!state.isReady()) {
                inTheWay.add(Refusal.of(
                        "order.line", document.number() + " is not ready: " + state.says() + ".", remedy(state)));
            }
            inTheWay.addAll(checks.inTheWay(document, true));
        }
        List<Seen> all = bundle(locked);
        Optional<Move> carry = locked.route()
                .doing(Effect.OPEN_ROUND, locked.stage())
                .flatMap(m -> locked.route().decided(m.to()));
        List<Asking.Line> asked =
                carry.map(m -> asking.lines(all, m.signOffs())).orElse(List.of());
        return new BoardPlan(inTheWay, asked, Asking.nobody(asked));
    }

    private static String remedy(LineState state) {
        return state.says().startsWith("held by")
                ? "Ask for it to be checked in."
                : "Check in what the order asks for.";
    }

    /** The paper first: a round and its mails go by its name. */
    private static List<Seen> bundle(Locked locked) {
        List<Seen> all = new ArrayList<>();
        all.add(locked.paper());
        locked.lines().forEach(l -> all.add(locked.documents().get(l.item())));
        return all;
    }

    /** The board is asked about the order and all its documents together. */
    public String toBoard(Actor actor, long order, String key, String note, Map<Integer, Long> named) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Locked locked = locked(actor, order);
            Move move = move(actor, locked, Effect.OPEN_ROUND);
            BoardPlan plan = boardPlan(locked);
            List<String> why = new ArrayList<>();
            plan.nobody().ifPresent(r -> why.add(r.says()));
            plan.inTheWay().forEach(r -> why.add(r.says()));
            refuseUnlessEmpty(why, "The board was not asked.");
            Instant now = clock.instant();
            List<Seen> all = bundle(locked);
            long bundle =
                    rounds.openBundle(all.stream().map(s -> s.spine().id()).toList(), actor.person(), now);
            asking.open(actor, bundle, all, plan.asked(), words, Asking.Wishes.named(named));
            moves.carryOut(actor, locked.paper().document(), locked.route(), move, words, Optional.empty());
            for (OrderLine line : locked.lines()) {
                Document document = documents.spine(line.item()).orElseThrow().document();
                Route route = house.edition(document.current().stage().edition());
                Optional<Move> send =
                        route.opensRound(document.current().stage().code());
                send.ifPresent(m -> moves.carryOut(
                        actor, document, route, m, locked.paper().document().number(), Optional.empty()));
            }
            return "/orders/" + order;
        });
    }

    /** The move that ends an order without its change, where its stage has one. */
    private static Optional<Move> stopMove(Seen paper, Route route) {
        return route.from(paper.current().stage().code()).stream()
                .filter(m -> route.stage(m.to()).stageClass() == mintshelf.core.revision.StageClass.CLOSED)
                .findFirst();
    }

    /** Ends an order without its change: its documents are free again; revisions that were started stay to be dropped or used. */
    public String stop(Actor actor, long order, String key, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Locked locked = locked(actor, order);
            Move move = stopMove(locked.paper(), locked.route()).orElseThrow(() -> notFrom(locked));
            List<Refusal> inTheWay =
                    MoveRules.ask(move, locked.paper().document(), actor.access(), List.of(), List.of());
            refuseUnlessEmpty(inTheWay.stream().map(Refusal::says).toList(), "It goes on.");
            orders.end(order, Optional.empty(), why, clock.instant());
            moves.carryOut(actor, locked.paper().document(), locked.route(), move, why, Optional.empty());
            for (OrderLine line : locked.lines()) {
                recorder.note(
                        actor,
                        line.item(),
                        "order.stopped",
                        "is free again: " + locked.paper().document().number() + " was stopped",
                        why);
            }
            return "/orders/" + order;
        });
    }
}
