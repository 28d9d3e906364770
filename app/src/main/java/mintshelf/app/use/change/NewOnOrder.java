package mintshelf.app.use.change;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FreshCopy;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperLine;
import org.springframework.stereotype.Service;

/** Documents that an order makes: each begins as a copy of one that is there, with a number of its own, and is a line from then on. */
@Service
public class NewOnOrder {
    private final Sight sight;
    private final Numbered numbered;
    private final PaperStore orders;
    private final ChangePaper papers;
    private final FreshCopy copy;
    private final Acts acts;

    public NewOnOrder(
            Sight sight, Numbered numbered, PaperStore orders, ChangePaper papers, FreshCopy copy, Acts acts) {
        this.sight = sight;
        this.numbered = numbered;
        this.orders = orders;
        this.papers = papers;
        this.copy = copy;
        this.acts = acts;
    }

    /**
     * What the page offers to begin with.
     *
     * @param lines documents of the order's lines, of which the new one may be a copy
     * @param chosen what it will be a copy of, once somebody named it, and the number that it would get
     * @param refusal why that cannot be copied
     */
    public record View(
            Seen order, List<Seen> lines, Optional<Seen> chosen, Optional<String> number, Optional<Refusal> refusal) {}

    /** For who may change the order while it is outlined. Nothing is changed. */
    public View view(Actor actor, long order, String like) {
        if (orders.order(order).isEmpty()) throw new NotThere();
        Seen paper = papers.outlined(actor, List.of(sight.of(actor, order)), order);
        List<Seen> lines =
                sight
                        .of(
                                actor,
                                orders.lines(order).stream()
                                        .map(PaperLine::item)
                                        .limit(40)
                                        .toList())
                        .values()
                        .stream()
                        .filter(s -> copy.refusal(actor, s).isEmpty())
                        .toList();
        Optional<Seen> chosen = like.isBlank() ? Optional.empty() : Optional.of(numbered.named(actor, like));
        Optional<Refusal> refusal = chosen.flatMap(s -> copy.refusal(actor, s));
        return new View(
                paper, lines, chosen, refusal.isEmpty() ? chosen.flatMap(copy::number) : Optional.empty(), refusal);
    }

    /**
     * Makes a document and puts it on the order; both or nothing.
     *
     * @param like the number of the document that it begins as a copy of
     * @param wanted its own number; empty for the next one of the series
     */
    public String make(Actor actor, long order, String key, String like, String wanted, String title, String reason) {
        String named = Texts.required("The title", title, 200).orElseThrow(Refused::new);
        String why = Texts.optional("The reason", reason, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            papers.outlined(actor, List.of(locked.paper()), order);
            if (locked.lines().size() >= AskForChange.MOST) {
                throw Refused.because(
                        "order.many",
                        "An order has " + AskForChange.MOST + " documents at most.",
                        "Put the rest on another one; nothing was made.");
            }
            Seen from = numbered.named(actor, like);
            String number = locked.paper().document().number();
            copy.refusal(actor, from).ifPresent(r -> {
                throw new Refused(r);
            });
            long item = copy.make(actor, from, from.version(), copy.beside(from, wanted, named, "Made by " + number))
                    .item();
            int position =
                    locked.lines().stream().mapToInt(PaperLine::position).max().orElse(0) + 1;
            orders.addLine(order, position, item, PaperLine.What.NEW, why, Optional.empty(), 1);
            papers.write(actor, actor.person(), order, "made a document");
            return "/orders/" + order;
        });
    }
}
