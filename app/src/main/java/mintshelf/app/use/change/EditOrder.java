package mintshelf.app.use.change;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Effective;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import org.springframework.stereotype.Service;

/** Changes what an outlined order says: its reason, what happens to its lines, from when on it counts. */
@Service
public class EditOrder {
    private final ChangePaper papers;
    private final PaperStore orders;
    private final Numbered numbered;
    private final NextTurn next;
    private final LineVariants variants;
    private final Acts acts;
    private final Recorder recorder;

    public EditOrder(
            ChangePaper papers,
            PaperStore orders,
            Numbered numbered,
            NextTurn next,
            LineVariants variants,
            Acts acts,
            Recorder recorder) {
        this.papers = papers;
        this.orders = orders;
        this.numbered = numbered;
        this.next = next;
        this.variants = variants;
        this.acts = acts;
        this.recorder = recorder;
    }

    /**
     * What somebody wrote; lines are named by their ids.
     *
     * @param reasons of lines
     * @param removed lines that go
     * @param withdrawn lines whose documents are withdrawn, with the number of what takes their place, which may be empty
     * @param facts lines of whose documents facts change only
     * @param kept lines whose documents are revised after all
     * @param variants of lines the variants that they are about; of one that is not here they stay
     */
    public record Written(
            String reason,
            Map<Long, String> reasons,
            Collection<Long> removed,
            Map<Long, String> withdrawn,
            Collection<Long> facts,
            Collection<Long> kept,
            Map<Long, List<String>> variants,
            String effectiveBy,
            String effectiveFrom) {
        /** The same lines of an order that says this. */
        Written saying(String why, String by, String from) {
            return new Written(why, reasons, removed, withdrawn, facts, kept, variants, by, from);
        }

        public static Written of(String reason, Map<Long, String> reasons, Collection<Long> removed) {
            return new Written(reason, reasons, removed, Map.of(), List.of(), List.of(), Map.of(), "", "");
        }
    }

    /** All of it or nothing. */
    public String edit(Actor actor, long order, String key, Written written) {
        String why = Texts.optionalLines("The reason", written.reason(), 2000).orElseThrow(Refused::new);
        if (why.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        Optional<Effective> effective =
                Effective.of(written.effectiveBy(), written.effectiveFrom()).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            Seen paper = papers.outlined(actor, List.of(locked.paper()), order);
            List<PaperLine> lines = locked.lines();
            if (lines.stream().allMatch(l -> written.removed().contains(l.id()))) {
                throw Refused.because("order.empty", "An order without lines changes nothing.", "Stop it instead.");
            }
            orders.setReason(order, why);
            orders.setEffective(order, effective);
            for (PaperLine line : lines) {
                Seen document = locked.documents().get(line.item());
                if (written.removed().contains(line.id())) remove(actor, paper, line);
                else change(actor, order, document, line, written);
            }
            papers.write(actor, actor.person(), order, "changed its lines");
            return "/orders/" + order;
        });
    }

    private void remove(Actor actor, Seen paper, PaperLine line) {
        Set<Long> moved = orders.removeLine(line);
        next.tell(actor, moved, paper.document().number() + " goes without it");
        recorder.note(
                actor,
                line.item(),
                "order.unnamed",
                "was taken off " + paper.document().number(),
                "");
    }

    private void change(Actor actor, long order, Seen document, PaperLine line, Written written) {
        List<String> about = written.variants().get(line.id());
        if (about != null) variants.keep(order, document, about);
        if (written.reasons().containsKey(line.id())) {
            orders.setLineReason(
                    line.id(),
                    Texts.optional("A line's reason", written.reasons().get(line.id()), 500)
                            .orElseThrow(Refused::new));
        }
        if (written.withdrawn().containsKey(line.id())) {
            OrderRules.withdraw(line, document.document()).ifPresent(r -> {
                throw new Refused(r);
            });
            String number = written.withdrawn().get(line.id());
            Optional<Long> successor = number.isBlank()
                    ? Optional.empty()
                    : Optional.of(numbered.successor(actor, line.item(), number)
                            .spine()
                            .id());
            orders.setWhat(line.id(), PaperLine.What.WITHDRAW, successor);
        } else if (written.facts().contains(line.id())) {
            OrderRules.factsOnly(line, document.document()).ifPresent(r -> {
                throw new Refused(r);
            });
            orders.setWhat(line.id(), PaperLine.What.FACTS, Optional.empty());
        } else if (!line.releases() && written.kept().contains(line.id())) {
            orders.setWhat(line.id(), PaperLine.What.REVISE, Optional.empty());
        }
    }
}
