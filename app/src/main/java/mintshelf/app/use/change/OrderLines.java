package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.change.SequenceStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.OrderRules;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.Sequence;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;

/** What goes on orders: documents, behind the open orders that they are on; requests. Within the caller's transaction. */
@Component
class OrderLines {
    private final Sight sight;
    private final PaperStore orders;
    private final RequestStore requests;
    private final SequenceStore sequence;
    private final Recorder recorder;

    OrderLines(Sight sight, PaperStore orders, RequestStore requests, SequenceStore sequence, Recorder recorder) {
        this.sight = sight;
        this.orders = orders;
        this.requests = requests;
        this.sequence = sequence;
        this.recorder = recorder;
    }

    /** What lines over these documents would be, or why there would be none. */
    List<AskForChange.Row> rows(Actor actor, List<Seen> all) {
        Map<Long, List<Sequence.Ahead>> open =
                sequence.on(all.stream().map(s -> s.spine().id()).toList());
        List<AskForChange.Row> rows = new ArrayList<>();
        for (Seen seen : all) {
            List<Sequence.Ahead> ahead = open.getOrDefault(seen.spine().id(), List.of());
            if (seen.spine().isChangePaper()) {
                rows.add(refused(seen, "change.paper", seen.document().number() + " is a paper of a change itself."));
            } else if (!seen.all()) {
                rows.add(refused(seen, "access.missing", "You see released versions of it only."));
            } else {
                Outcome<PaperLine.What> line = OrderRules.line(seen.document(), actor.access(), ahead);
                rows.add(
                        line instanceof Outcome.Granted<PaperLine.What> granted
                                ? new AskForChange.Row(seen, Optional.of(granted.value()), Optional.empty(), ahead)
                                : new AskForChange.Row(seen, Optional.empty(), line.refusal(), List.of()));
            }
        }
        return rows;
    }

    private static AskForChange.Row refused(Seen seen, String code, String reason) {
        return new AskForChange.Row(
                seen, Optional.empty(), Optional.of(Refusal.of(code, reason, "Leave it out.")), List.of());
    }

    /**
     * Puts documents on an order, which are locked; all or none.
     *
     * @param after the order behind which each is meant to go, by document: who was shown another one decides anew
     */
    void add(
            Actor actor,
            long order,
            String number,
            int position,
            List<AskForChange.Row> rows,
            Map<Long, String> reasons,
            Map<Long, Long> after) {
        refuseUnlessAll(rows, after);
        refuseRing(order, number, rows);
        int at = position;
        for (AskForChange.Row row : rows) {
            Document document = row.seen().document();
            String reason = Texts.optional(
                            "The reason for " + document.number(), reasons.getOrDefault(document.id(), ""), 500)
                    .orElseThrow(Refused::new);
            orders.addLine(
                    order,
                    at++,
                    document.id(),
                    row.what().orElseThrow(),
                    reason,
                    document.released().map(r -> r.id()),
                    row.ahead().size() + 1);
            recorder.note(
                    actor,
                    document.id(),
                    "order.named",
                    "was put on " + number + (row.ahead().isEmpty() ? "" : ", after " + row.last()),
                    reason);
        }
    }

    private static void refuseUnlessAll(List<AskForChange.Row> rows, Map<Long, Long> after) {
        List<String> why = new ArrayList<>();
        for (AskForChange.Row row : rows) {
            row.refusal().map(Refusal::says).ifPresent(why::add);
            if (row.ahead().isEmpty()) continue;
            Sequence.Ahead last = row.ahead().get(row.ahead().size() - 1);
            Document document = row.seen().document();
            if (after.getOrDefault(document.id(), 0L) != last.order()) {
                why.add(Refusal.of(
                                "order.other",
                                document.number() + " is on " + row.last() + " already.",
                                "Orders on one document go one after the other: look again, and let this one go after it.")
                        .says());
            }
        }
        if (!why.isEmpty()) {
            throw Refused.because("order.refused", String.join(" ", why), "Nothing was put on an order.");
        }
    }

    private void refuseRing(long order, String number, List<AskForChange.Row> rows) {
        Map<Long, String> names = new HashMap<>();
        names.put(order, number);
        Set<Long> behind = new LinkedHashSet<>();
        rows.forEach(r -> r.ahead().forEach(a -> {
            behind.add(a.order());
            names.put(a.order(), a.number());
        }));
        if (behind.isEmpty()) return;
        sequence.lock();
        Optional<List<Long>> ring = Sequence.ring(order, behind, sequence.waits());
        if (ring.isEmpty()) return;
        List<Long> path = ring.get();
        orders.numbers(path).forEach(names::putIfAbsent);
        throw Refused.because(
                "order.ring",
                names.get(order) + " would wait for itself: "
                        + path.stream()
                                .map(o -> names.getOrDefault(o, "another order"))
                                .collect(Collectors.joining(" after "))
                        + ".",
                "Put them in the other order, or take a document off one of them; nothing was put on an order.");
    }

    /**
     * An order takes a request up, accepted or not; refused for one that has ended or that goes on already. One that is not decided
     * on is decided with the order.
     */
    void takeUp(Actor actor, long order, String number, long request) {
        Seen seen = sight.lockedWithPapers(actor, List.of(request)).get(0);
        if (!seen.all() || orders.request(request).isEmpty()) throw new NotThere();
        String named = seen.document().number();
        StageClass stands = seen.current().stage().stageClass();
        if (stands == StageClass.CLOSED) {
            throw Refused.because(
                    "request.ended", named + " is " + seen.current().stage().name() + ".", "Ask for the change anew.");
        }
        if (requests.orderOf(request).isPresent()
                || orders.lines(request).stream().anyMatch(l -> l.toRevision().isPresent())) {
            throw Refused.because("request.taken", named + " goes on already.", "Look at its page.");
        }
        orders.takeUp(order, request);
        recorder.note(
                actor,
                request,
                "request.taken",
                "was taken up by " + number
                        + (stands == StageClass.RELEASED ? "" : ", undecided: it is decided with the order"),
                "");
    }
}
