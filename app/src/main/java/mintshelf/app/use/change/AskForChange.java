package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Makes change orders from selections, and changes their lines while they are outlined. */
@Service
public class AskForChange {
    /** Documents on one order. */
    public static final int MOST = 500;

    /** What an order says in short stands on every sheet that it revises. */
    private static final int SHORT = 72;

    private final Sight sight;
    private final PaperStore orders;
    private final RequestStore requests;
    private final ChangePaper papers;
    private final FilePaper file;
    private final HouseStore house;
    private final Acts acts;
    private final Telling telling;
    private final Recorder recorder;

    public AskForChange(
            Sight sight,
            PaperStore orders,
            RequestStore requests,
            ChangePaper papers,
            FilePaper file,
            HouseStore house,
            Acts acts,
            Telling telling,
            Recorder recorder) {
        this.sight = sight;
        this.orders = orders;
        this.requests = requests;
        this.papers = papers;
        this.file = file;
        this.house = house;
        this.acts = acts;
        this.telling = telling;
        this.recorder = recorder;
    }

    /** A document that is asked about: what its line would be, or why it has none. */
    public record Row(Seen seen, Optional<PaperLine.What> what, Optional<Refusal> refusal) {}

    /** Whether the paper is an order that takes more lines from the actor. */
    public boolean grows(Actor actor, Seen paper) {
        return paper.spine().isOrder()
                && papers.isOutlined(paper)
                && actor.access().may(Right.CHANGE, paper.document().place());
    }

    /** What an order over these documents would hold. */
    public List<Row> plan(Actor actor, Collection<Long> items) {
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        List<Seen> all = List.copyOf(sight.of(actor, items).values());
        if (all.isEmpty()) throw new NotThere();
        return rows(actor, all);
    }

    private List<Row> rows(Actor actor, List<Seen> all) {
        Map<Long, PaperStore.On> open =
                orders.open(all.stream().map(s -> s.spine().id()).toList());
        List<Row> rows = new ArrayList<>();
        for (Seen seen : all) {
            if (seen.spine().isChangePaper()) {
                rows.add(refused(seen, "change.paper", seen.document().number() + " is a paper of a change itself."));
                continue;
            }
            if (!seen.all()) {
                rows.add(refused(seen, "access.missing", "You see released versions of it only."));
                continue;
            }
            Optional<String> other =
                    Optional.ofNullable(open.get(seen.spine().id())).map(PaperStore.On::number);
            Outcome<PaperLine.What> line = OrderRules.line(seen.document(), actor.access(), other);
            rows.add(
                    line instanceof Outcome.Granted<PaperLine.What> granted
                            ? new Row(seen, Optional.of(granted.value()), Optional.empty())
                            : new Row(seen, Optional.empty(), line.refusal()));
        }
        return rows;
    }

    private static Row refused(Seen seen, String code, String reason) {
        return new Row(seen, Optional.empty(), Optional.of(Refusal.of(code, reason, "Leave it out.")));
    }

    /**
     * Opens an order over documents; all of them or none.
     *
     * @param reasons why each is changed, by document; where empty the order's reason stands
     * @return the address of the order
     */
    public String ask(
            Actor actor, Collection<Long> items, String key, String title, String reason, Map<Long, String> reasons) {
        return ask(actor, items, key, title, reason, reasons, Optional.empty());
    }

    /**
     * As {@link #ask(Actor, Collection, String, String, String, Map)}.
     *
     * @param request one that was accepted and that the order takes up
     */
    public String ask(
            Actor actor,
            Collection<Long> items,
            String key,
            String title,
            String reason,
            Map<Long, String> reasons,
            Optional<Long> request) {
        String named = Texts.required("In short", title, SHORT).orElseThrow(Refused::new);
        String why = Texts.optionalLines("The reason", reason, 2000).orElseThrow(Refused::new);
        if (why.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        return acts.once(actor, key, () -> {
            List<Row> rows = rows(actor, sight.locked(actor, items));
            refuseUnlessAll(rows);
            Kind kind = house.kind(PaperType.ORDER);
            long shelf = rows.get(0).seen().document().place().shelf();
            NumberKey number = file.number(kind, shelf);
            long order = file.file(
                    actor,
                    kind,
                    shelf,
                    number,
                    named,
                    number.number() + ".json",
                    papers.begun(PaperType.ORDER, number.number(), named, why),
                    "opened");
            orders.add(order, PaperType.ORDER, why, "", Priority.USUAL);
            request.ifPresent(r -> takeUp(actor, order, number.number(), r));
            int position = 1;
            for (Row row : rows) add(actor, order, number.number(), position++, row, reasons);
            papers.write(actor, actor.person(), order, "wrote its lines");
            recorder.recent(actor, order, "opened");
            recorder.note(
                    actor,
                    order,
                    "order.opened",
                    "opened " + number.number() + " over " + Numbers.count(rows.size(), "document", "documents"),
                    Texts.shorten(why, 500));
            List<Long> board = telling.withRole(
                    "board-member",
                    rows.stream().map(r -> r.seen().document().place()).toList());
            telling.tell(
                    actor,
                    board,
                    "order.asked",
                    Optional.empty(),
                    order,
                    actor.name() + " asks for " + number.number() + " " + named + ": start the work, or stop it",
                    "/orders/" + order);
            return "/orders/" + order;
        });
    }

    /** Takes an accepted request up; refused for one that is not, and for one that another order has. */
    private void takeUp(Actor actor, long order, String number, long request) {
        Seen seen = sight.lockedWithPapers(actor, List.of(request)).get(0);
        if (!seen.all() || orders.request(request).isEmpty()) throw new NotThere();
        String named = seen.document().number();
        if (seen.current().stage().stageClass() != StageClass.RELEASED) {
            throw Refused.because(
                    "request.open",
                    named + " is " + seen.current().stage().name() + ".",
                    "It goes on an order when it is accepted.");
        }
        if (requests.orderOf(request).isPresent()
                || orders.lines(request).stream().anyMatch(l -> l.toRevision().isPresent())) {
            throw Refused.because("request.taken", named + " goes on already.", "Look at its page.");
        }
        orders.takeUp(order, request);
        recorder.note(actor, request, "request.taken", "was taken up by " + number, "");
    }

    private void add(Actor actor, long order, String number, int position, Row row, Map<Long, String> reasons) {
        Document document = row.seen().document();
        String reason = Texts.optional(
                        "The reason for " + document.number(), reasons.getOrDefault(document.id(), ""), 500)
                .orElseThrow(Refused::new);
        orders.addLine(
                order,
                position,
                document.id(),
                row.what().orElseThrow(),
                reason,
                document.released().map(r -> r.id()));
        recorder.note(actor, document.id(), "order.named", "was put on " + number, reason);
    }

    private static void refuseUnlessAll(List<Row> rows) {
        List<String> why = rows.stream()
                .flatMap(r -> r.refusal().stream())
                .map(Refusal::says)
                .toList();
        if (!why.isEmpty()) {
            throw Refused.because("order.refused", String.join(" ", why), "No order was opened; leave those rows out.");
        }
    }

    /** Puts more documents on an outlined order. */
    public String addTo(Actor actor, long order, Collection<Long> items, String key, Map<Long, String> reasons) {
        return addTo(actor, order, items, key, reasons, Optional.empty());
    }

    /** As {@link #addTo(Actor, long, Collection, String, Map)}, with a request that was accepted. */
    public String addTo(
            Actor actor,
            long order,
            Collection<Long> items,
            String key,
            Map<Long, String> reasons,
            Optional<Long> request) {
        return acts.once(actor, key, () -> {
            List<Long> all = new ArrayList<>(items);
            all.add(order);
            List<Seen> locked = sight.lockedWithPapers(actor, all);
            Seen paper = papers.outlined(actor, locked, order);
            List<Row> rows = rows(
                    actor, locked.stream().filter(s -> s.spine().id() != order).toList());
            refuseUnlessAll(rows);
            int position = orders.lines(order).stream()
                            .mapToInt(PaperLine::position)
                            .max()
                            .orElse(0)
                    + 1;
            if (position + rows.size() > MOST) throw new NotThere();
            request.ifPresent(r -> takeUp(actor, order, paper.document().number(), r));
            for (Row row : rows) add(actor, order, paper.document().number(), position++, row, reasons);
            papers.write(actor, actor.person(), order, "added lines");
            return "/orders/" + order;
        });
    }

    /**
     * Changes what an outlined order says.
     *
     * @param reasons by line id
     * @param removed ids of lines that go
     */
    public String edit(
            Actor actor, long order, String key, String reason, Map<Long, String> reasons, Collection<Long> removed) {
        String why = Texts.optionalLines("The reason", reason, 2000).orElseThrow(Refused::new);
        if (why.isEmpty())
            throw Refused.because("text.missing", "The reason is empty.", "Say what is wrong or wanted.");
        return acts.once(actor, key, () -> {
            List<Seen> locked = sight.lockedWithPapers(actor, List.of(order));
            Seen paper = papers.outlined(actor, locked, order);
            List<PaperLine> lines = orders.lines(order);
            if (lines.stream().allMatch(l -> removed.contains(l.id()))) {
                throw Refused.because("order.empty", "An order without lines changes nothing.", "Stop it instead.");
            }
            orders.setReason(order, why);
            for (PaperLine line : lines) {
                if (removed.contains(line.id())) {
                    orders.removeLine(line.id());
                    recorder.note(
                            actor,
                            line.item(),
                            "order.unnamed",
                            "was taken off " + paper.document().number(),
                            "");
                } else if (reasons.containsKey(line.id())) {
                    orders.setLineReason(
                            line.id(),
                            Texts.optional("A line's reason", reasons.get(line.id()), 500)
                                    .orElseThrow(Refused::new));
                }
            }
            papers.write(actor, actor.person(), order, "changed its lines");
            return "/orders/" + order;
        });
    }
}
