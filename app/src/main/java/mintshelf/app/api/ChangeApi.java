package mintshelf.app.api;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.app.use.change.ReadChanges;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.core.change.Disposition;
import mintshelf.core.change.Effective;
import mintshelf.core.change.Priority;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Requests and orders for programs. */
@RestController
@RequestMapping("/api/v1")
class ChangeApi {
    private static final int PAGE = 100;

    private final ReadChanges changes;
    private final ReadRequests requests;
    private final ReadOrders orders;
    private final KeepDisposition dispositions;

    ChangeApi(ReadChanges changes, ReadRequests requests, ReadOrders orders, KeepDisposition dispositions) {
        this.changes = changes;
        this.requests = requests;
        this.orders = orders;
        this.dispositions = dispositions;
    }

    /**
     * @param type request or order
     * @param since when it came to its stage
     * @param over days that it is over its day; 0 where it is not
     * @param waitsFor whom it waits for; empty for nobody by name
     */
    record Change(
            long paper,
            String type,
            String number,
            String title,
            String stage,
            String since,
            String priority,
            int lines,
            int done,
            String waitsFor,
            long over) {}

    /**
     * The papers that the person sees, by stage, a hundred on a page.
     *
     * @param show open, mine, to-decide, overdue, done, ended or everything
     */
    @GetMapping("/changes")
    List<Change> changes(
            Actor actor, @RequestParam(defaultValue = "open") String show, @RequestParam(defaultValue = "0") int page) {
        ReadChanges.Which which = Arrays.stream(ReadChanges.Which.values())
                .filter(w -> word(w).equals(show))
                .findFirst()
                .orElseThrow(() -> Refused.because(
                        "changes.show",
                        "There is no list “" + show + "”.",
                        "Ask for open, mine, to-decide, overdue, done, ended or everything."));
        return changes.list(actor, which, Math.max(0, Math.min(page, 10_000)), PAGE).groups().stream()
                .flatMap(g -> g.rows().stream())
                .map(r -> new Change(
                        r.seen().spine().id(),
                        r.isOrder() ? "order" : "request",
                        r.seen().document().number(),
                        r.seen().document().title(),
                        r.listed().stage(),
                        r.listed().since().toString(),
                        word(r.paper().priority()),
                        r.lines(),
                        r.done(),
                        r.waits(),
                        r.due()))
                .toList();
    }

    private static String word(Enum<?> one) {
        return one.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /**
     * A document on a paper. What the person may not see of it is null.
     *
     * @param what revise, first, new, withdraw or facts
     * @param instead what takes the place of one that is withdrawn
     * @param after numbers of the open orders that go before it, the first one first
     * @param facts what an open order changes of one of which facts change only, in words
     * @param variant which one of it is meant; always null until there are variants
     */
    record PaperLine(
            Long document,
            String number,
            String title,
            String what,
            String from,
            String to,
            String reason,
            boolean interchangeable,
            String state,
            String instead,
            List<String> after,
            List<String> facts,
            String variant) {}

    /** What becomes of the old ones of a document at a place; what nobody knows is null. */
    record Old(String number, String place, String quantity, String what, String cost, String currency, String note) {}

    /** @param state met, not-met or unknown */
    record PaperGoal(String number, String goal, String state) {}

    /**
     * A request or an order.
     *
     * @param effective from when on it counts; null with its release, and of a request
     * @param requests numbers of those that an order has taken up
     * @param order number of the order that has taken a request up
     * @param notice number of what an order was announced by
     */
    record Paper(
            long paper,
            String type,
            String number,
            String title,
            String stage,
            int version,
            String reason,
            String cause,
            String priority,
            String effective,
            List<PaperLine> lines,
            List<PaperGoal> goals,
            List<Old> old,
            List<String> requests,
            String order,
            String notice) {}

    @GetMapping("/papers/{id}")
    Paper paper(Actor actor, @PathVariable long id) {
        return orders.paper(actor, id).spine().isRequest() ? request(actor, id) : order(actor, id);
    }

    private Paper request(Actor actor, long id) {
        ReadRequests.View view = requests.request(actor, id);
        return new Paper(
                id,
                "request",
                view.seen().document().number(),
                view.seen().document().title(),
                view.stage(),
                view.seen().version(),
                view.paper().reason(),
                view.paper().cause(),
                word(view.paper().priority()),
                null,
                view.lines().stream()
                        .map(l ->
                                line(l.line(), l.seen(), l.from(), l.to(), "", Optional.empty(), List.of(), List.of()))
                        .toList(),
                view.goals().stream()
                        .map(g -> new PaperGoal(
                                g.number(), g.goal().words(), word(g.judgement().state())))
                        .toList(),
                List.of(),
                List.of(),
                number(view.order()),
                null);
    }

    private Paper order(Actor actor, long id) {
        ReadOrders.View view = orders.order(actor, id);
        return new Paper(
                id,
                "order",
                view.seen().document().number(),
                view.seen().document().title(),
                view.stage(),
                view.seen().version(),
                view.order().reason(),
                view.order().cause(),
                word(Priority.USUAL),
                view.order().effective().map(Effective::words).orElse(null),
                view.lines().stream()
                        .map(l -> line(
                                l.line(),
                                l.seen(),
                                l.from(),
                                l.to(),
                                l.state().says(),
                                l.instead(),
                                l.ahead(),
                                l.facts()))
                        .toList(),
                List.of(),
                dispositions.view(actor, id).lines().stream()
                        .flatMap(l -> l.at().values().stream().map(d -> old(l.seen(), d)))
                        .toList(),
                orders.takenUp(actor, id).stream()
                        .map(s -> s.document().number())
                        .toList(),
                null,
                number(view.notice()));
    }

    private static String number(Optional<Seen> seen) {
        return seen.map(s -> s.document().number()).orElse(null);
    }

    private static PaperLine line(
            mintshelf.core.change.PaperLine line,
            Optional<Seen> seen,
            String from,
            String to,
            String state,
            Optional<Seen> instead,
            List<Seen> ahead,
            List<String> facts) {
        return new PaperLine(
                seen.map(s -> s.spine().id()).orElse(null),
                number(seen),
                seen.map(s -> s.document().title()).orElse(null),
                word(line.what()),
                from,
                to,
                seen.isPresent() ? line.reason() : null,
                line.interchangeable(),
                state,
                number(instead),
                ahead.stream().map(s -> s.document().number()).toList(),
                facts,
                null);
    }

    private static Old old(Seen seen, Disposition d) {
        return new Old(
                seen.document().number(),
                word(d.place()),
                d.quantity().isPresent() ? d.howMany() : null,
                d.what().map(ChangeApi::word).orElse(null),
                d.cost().map(c -> c.amount().toPlainString()).orElse(null),
                d.cost().map(Disposition.Money::currency).orElse(null),
                d.note());
    }
}
