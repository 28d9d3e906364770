package mintshelf.app.use.change;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.SequenceStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Sequence;
import org.springframework.stereotype.Component;

/** Orders that waited for another one: what they say is written anew, who opened them and who starts them learns that they can. */
@Component
class NextTurn {
    private final PaperStore orders;
    private final SequenceStore sequence;
    private final SpineStore spines;
    private final ChangePaper papers;
    private final Telling telling;
    private final Recorder recorder;

    NextTurn(
            PaperStore orders,
            SequenceStore sequence,
            SpineStore spines,
            ChangePaper papers,
            Telling telling,
            Recorder recorder) {
        this.orders = orders;
        this.sequence = sequence;
        this.spines = spines;
        this.papers = papers;
        this.telling = telling;
        this.recorder = recorder;
    }

    /**
     * Within the transaction that let them move up.
     *
     * @param why as in "CO 26-007 is carried out"
     */
    void tell(Actor actor, Set<Long> moved, String why) {
        Map<Long, Spine> all = spines.spines(moved);
        for (long order : moved) {
            Spine spine = all.get(order);
            papers.write(actor, spine.author(), order, "moved up");
            boolean waits = orders.lines(order).stream().anyMatch(PaperLine::waits);
            if (waits) continue;
            recorder.note(actor, order, "order.turn", "waits for no other order any more", why);
            Set<Long> receivers = new LinkedHashSet<>(
                    telling.withRole("board-member", List.of(spine.document().place())));
            receivers.add(spine.author());
            telling.tell(
                    actor,
                    receivers,
                    "order.turn",
                    Optional.empty(),
                    order,
                    spine.document().number() + " waits for no other order any more: " + why,
                    "/orders/" + order);
        }
    }

    /** The open orders that go before lines which wait, by document. */
    Map<Long, List<Sequence.Ahead>> before(List<PaperLine> lines) {
        return sequence.before(lines);
    }

    /** The documents of an order that was stopped say so. */
    void free(Actor actor, List<PaperLine> lines, String number, String why) {
        for (PaperLine line : lines) {
            recorder.note(actor, line.item(), "order.stopped", "is free again: " + number + " was stopped", why);
        }
    }
}
