package mintshelf.app.use.change;

import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Telling;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.round.RoundStore;
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
    private final SpineStore spines;
    private final RoundStore rounds;
    private final Bundles bundles;
    private final ChangePaper orderPapers;
    private final Telling telling;
    private final Acts acts;
    private final Clock clock;

    public CarryOutOrder(
            PaperStore orders,
            PreviewOrder preview,
            SpineStore spines,
            RoundStore rounds,
            Bundles bundles,
            ChangePaper orderPapers,
            Telling telling,
            Acts acts,
            Clock clock) {
        this.orders = orders;
        this.preview = preview;
        this.spines = spines;
        this.rounds = rounds;
        this.bundles = bundles;
        this.orderPapers = orderPapers;
        this.telling = telling;
        this.acts = acts;
        this.clock = clock;
    }

    /** Carries the order out. */
    public String carryOut(Actor actor, long order, String key) {
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
            // The lines first: the notice says with which versions they went out.
            List<Seen> all = new ArrayList<>(PreviewOrder.documents(lines, seen));
            all.add(paper);
            Plan<Bundles.Going> plan = bundles.plan(
                    actor,
                    all,
                    s -> s.spine().id() == order ? Way.doing(Effect.RELEASE_LINES) : Way.released(),
                    s -> s.spine().id() == order ? By.HAND : By.ORDER);
            Refused.unlessOpen(plan, "order.refused", "Nothing was released.");
            bundles.carryOut(
                    plan,
                    Setting.of(actor, By.ORDER, "", clock.instant(), all)
                            .with(paper)
                            .signed(board));
            tell(actor, paper, board, orders.order(order).orElseThrow().notice().orElseThrow());
            return "/orders/" + order + "?done";
        });
    }

    private void tell(Actor actor, Seen paper, Round board, long notice) {
        Set<Long> receivers = new LinkedHashSet<>();
        receivers.add(board.by());
        receivers.add(paper.spine().author());
        board.signOffs().forEach(s -> receivers.add(s.person()));
        rounds.authors(List.of(board.id())).values().forEach(receivers::addAll);
        telling.tell(
                actor,
                receivers,
                "order.carried_out",
                Optional.of(board.id()),
                paper.spine().id(),
                actor.name() + " carried out " + paper.document().number() + "; "
                        + spines.spine(notice).orElseThrow().document().number() + " is issued",
                "/orders/" + paper.spine().id());
    }
}
