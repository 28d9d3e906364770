package mintshelf.app.use.change;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Plan;
import mintshelf.core.change.PaperLine;
import mintshelf.core.route.By;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Way;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Service;

/**
 * Carries an order out: every line is released, the notice is issued and filed, in one transaction: whole or not at all. What it
 * will do is seen before.
 */
@Service
public class CarryOutOrder {
    private final PaperStore orders;
    private final PreviewOrder preview;
    private final DecideAlong along;
    private final NextTurn next;
    private final WhoIsTold told;
    private final Bundles bundles;
    private final ChangePaper orderPapers;
    private final Acts acts;
    private final Clock clock;

    public CarryOutOrder(
            PaperStore orders,
            PreviewOrder preview,
            DecideAlong along,
            NextTurn next,
            WhoIsTold told,
            Bundles bundles,
            ChangePaper orderPapers,
            Acts acts,
            Clock clock) {
        this.orders = orders;
        this.preview = preview;
        this.along = along;
        this.next = next;
        this.told = told;
        this.bundles = bundles;
        this.orderPapers = orderPapers;
        this.acts = acts;
        this.clock = clock;
    }

    /** Carries the order out; who is told are those that its page says. */
    public String carryOut(Actor actor, long order, String key) {
        return carryOut(actor, order, key, Optional.empty());
    }

    /**
     * As {@link #carryOut(Actor, long, String)}.
     *
     * @param chosen who is told, as somebody chose them; those whom the house tells are told besides
     */
    public String carryOut(Actor actor, long order, String key, Optional<List<Long>> chosen) {
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = orderPapers.locked(actor, order);
            Map<Long, Seen> seen = locked.documents();
            List<PaperLine> lines = locked.lines();
            Seen paper = locked.paper();
            PreviewOrder.Preview preview = this.preview.preview(actor, paper, lines, seen);
            if (!preview.opens()) {
                throw Refused.because("order.refused", String.join(" ", preview.says()), "Nothing was released.");
            }
            Round board = this.preview.board(paper).orElseThrow();
            chosen.ifPresent(people -> told.choose(paper, told.of(paper, Optional.of(board)), people));
            Set<Long> receivers = told.of(paper, Optional.of(board)).receivers();
            // The lines first: the notice says with which versions they went out.
            List<Seen> all = new ArrayList<>(PreviewOrder.documents(lines, seen));
            all.add(paper);
            Set<Long> gone = PreviewOrder.withdrawn(lines);
            Set<Long> behind = Set.copyOf(orders.behind(order));
            Plan<Bundles.Going> plan = bundles.plan(
                    actor,
                    all,
                    s -> s.spine().id() == order ? Way.doing(Effect.RELEASE_LINES) : PreviewOrder.way(gone, s),
                    s -> s.spine().id() == order ? By.HAND : By.ORDER);
            Refused.unlessOpen(plan, "order.refused", "Nothing was released.");
            bundles.carryOut(
                    plan,
                    Setting.of(actor, By.ORDER, "", clock.instant(), all)
                            .with(paper)
                            .signed(board));
            String number = paper.document().number();
            along.decide(actor, locked);
            next.tell(actor, behind, number + " is carried out");
            long notice = orders.order(order).orElseThrow().notice().orElseThrow();
            told.tell(
                    actor,
                    receivers,
                    paper,
                    board,
                    actor.name() + " carried out " + number + "; "
                            + orders.numbers(List.of(notice)).get(notice) + " is issued");
            return "/orders/" + order + "?done";
        });
    }
}
