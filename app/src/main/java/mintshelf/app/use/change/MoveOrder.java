package mintshelf.app.use.change;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Asking;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Sequence;
import mintshelf.core.document.Document;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Policy;
import org.springframework.stereotype.Service;

/** Moves an order and its documents along: the work starts, the board is asked, the order is stopped. All lines together. */
@Service
public class MoveOrder {
    private final Sight sight;
    private final PaperStore orders;
    private final ChangePaper papers;
    private final Bundles bundles;
    private final Telling telling;
    private final Asking asking;
    private final Acts acts;
    private final NextTurn next;
    private final Clock clock;

    public MoveOrder(
            Sight sight,
            PaperStore orders,
            ChangePaper papers,
            Bundles bundles,
            Telling telling,
            Asking asking,
            Acts acts,
            NextTurn next,
            Clock clock) {
        this.sight = sight;
        this.orders = orders;
        this.papers = papers;
        this.bundles = bundles;
        this.telling = telling;
        this.asking = asking;
        this.acts = acts;
        this.next = next;
        this.clock = clock;
    }

    /** The work starts: each document's next revision begins, reserved under the order. */
    public String start(Actor actor, long order, String key) {
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            Plan<Bundles.Going> plan =
                    bundles.plan(actor, List.of(locked.paper()), Way.doing(Effect.START_LINES), By.HAND);
            Refused.unlessOpen(plan, "order.refused", "No work was started.");
            Refused.unlessEmpty(inTheWay(locked), "order.refused", "No work was started.");
            String number = locked.paper().document().number();
            bundles.carryOut(plan, Setting.of(actor, By.HAND, "", clock.instant(), List.of(locked.paper())));
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

    /** What is in the way of starting its work; nothing is changed. */
    public List<Refusal> startPlan(Actor actor, long order) {
        ChangePaper.Locked seen = seen(actor, order);
        List<Refusal> inTheWay =
                new ArrayList<>(bundles.plan(actor, List.of(seen.paper()), Way.doing(Effect.START_LINES), By.HAND)
                        .refusals());
        inTheWay.addAll(inTheWay(seen));
        return inTheWay;
    }

    private List<Refusal> inTheWay(ChangePaper.Locked locked) {
        Map<Long, List<Sequence.Ahead>> before = next.before(locked.lines());
        List<Refusal> inTheWay = new ArrayList<>();
        for (PaperLine line : locked.lines()) {
            Document document = locked.documents().get(line.item()).document();
            OrderRules.turn(line, document, before.getOrDefault(line.item(), List.of()))
                    .or(() -> OrderRules.begins(line, document))
                    .ifPresent(inTheWay::add);
        }
        return inTheWay;
    }

    /** What stands between an order under way and its board, and whom the board asks. */
    public record BoardPlan(
            List<Refusal> inTheWay, List<Asking.AskedLine> asked, Policy policy, Optional<Refusal> nobody) {
        public boolean opens() {
            return inTheWay.isEmpty() && nobody.isEmpty();
        }
    }

    /** Nothing is changed. */
    public BoardPlan boardPlan(Actor actor, long order) {
        return boardPlan(actor, seen(actor, order));
    }

    /** An order with its documents as they are, all of which the actor sees; not locked. */
    private ChangePaper.Locked seen(Actor actor, long order) {
        List<PaperLine> lines = orders.lines(order);
        List<Long> all = new ArrayList<>(lines.stream().map(PaperLine::item).toList());
        all.add(order);
        Map<Long, Seen> seen = sight.of(actor, all);
        if (seen.size() != all.size() || !seen.get(order).all()) throw new NotThere();
        return new ChangePaper.Locked(seen.get(order), lines, seen);
    }

    private BoardPlan boardPlan(Actor actor, ChangePaper.Locked locked) {
        Plan<Bundles.Going> plan = bundles.plan(actor, List.of(locked.paper()), Way.doing(Effect.OPEN_ROUND), By.HAND);
        Asking.Demand demand = asking.demand(plan.rows().get(0).of().move().stream()
                .flatMap(m -> plan.rows().get(0).of().route().decided(m.to()).stream())
                .toList());
        List<Asking.AskedLine> asked = asking.lines(bundle(locked), demand.lines());
        return new BoardPlan(plan.refusals(), asked, demand.policy(), Asking.nobody(asked));
    }

    /** The paper first: a round and its mails go by its name. It says what is withdrawn and which facts change; of that no version is signed. */
    private static List<Seen> bundle(ChangePaper.Locked locked) {
        List<Seen> all = new ArrayList<>();
        all.add(locked.paper());
        locked.lines().stream()
                .filter(PaperLine::releases)
                .forEach(l -> all.add(locked.documents().get(l.item())));
        return all;
    }

    /** The board is asked about the order and all its documents together. */
    public String toBoard(Actor actor, long order, String key, String note, Map<Integer, Long> named) {
        String words = Texts.optionalLines("The note", note, 1000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            BoardPlan board = boardPlan(actor, locked);
            List<Refusal> inTheWay = new ArrayList<>(board.nobody().stream().toList());
            inTheWay.addAll(board.inTheWay());
            Refused.unlessEmpty(inTheWay, "order.refused", "The board was not asked.");
            List<Seen> all = bundle(locked);
            Plan<Bundles.Going> plan = bundles.plan(
                    actor,
                    all,
                    s -> s.spine().id() == order ? Way.doing(Effect.OPEN_ROUND) : Way.toBoard(),
                    s -> s.spine().id() == order ? By.HAND : By.ORDER);
            Refused.unlessOpen(plan, "order.refused", "The board was not asked.");
            bundles.carryOut(
                    plan,
                    Setting.of(actor, By.ORDER, words, clock.instant(), all)
                            .with(locked.paper())
                            .asking(new Asking.Asks(board.asked(), board.policy(), words, Asking.Wishes.named(named))));
            return "/orders/" + order;
        });
    }

    /** Ends an order without its change: its documents are free again; revisions that were started stay to be dropped or used. */
    public String stop(Actor actor, long order, String key, String reason) {
        String why = Texts.required("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            By by = By.handSaying(why);
            Plan<Bundles.Going> plan = bundles.plan(actor, List.of(locked.paper()), Way.closed(), by);
            Refused.unlessOpen(plan, "order.refused", "It goes on.");
            Set<Long> moved = orders.end(order, Optional.empty(), why, clock.instant());
            next.tell(actor, moved, locked.paper().document().number() + " was stopped");
            bundles.carryOut(plan, Setting.of(actor, by, why, clock.instant(), List.of(locked.paper())));
            next.free(actor, locked.lines(), locked.paper().document().number(), why);
            return "/orders/" + order;
        });
    }
}
