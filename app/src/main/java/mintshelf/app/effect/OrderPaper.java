package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.change.OrderLine;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** An order as a paper: its versions are what its lines say, as canonical JSON, so that sign-offs bind to them. */
@Component
public class OrderPaper {
    private final Sight sight;
    private final OrderStore orders;
    private final SpineStore spines;
    private final FilePaper file;
    private final HouseStore house;
    private final Recorder recorder;
    private final JsonMapper json;

    public OrderPaper(
            Sight sight,
            OrderStore orders,
            SpineStore spines,
            FilePaper file,
            HouseStore house,
            Recorder recorder,
            JsonMapper json) {
        this.sight = sight;
        this.orders = orders;
        this.spines = spines;
        this.file = file;
        this.house = house;
        this.recorder = recorder;
        this.json = json;
    }

    /**
     * An order's paper with its documents under one lock, in one order, and its lines as they stand under it. A line that came between
     * looking and locking is refused in words, for its document is not locked.
     */
    public record Locked(Seen paper, List<OrderLine> lines, Map<Long, Seen> documents) {}

    public Locked locked(Actor actor, long order) {
        if (orders.order(order).isEmpty()) throw new NotThere();
        List<Long> all = new ArrayList<>(
                orders.lines(order).stream().map(OrderLine::item).toList());
        all.add(order);
        Map<Long, Seen> seen = new LinkedHashMap<>();
        sight.lockedWithPapers(actor, all).forEach(s -> seen.put(s.spine().id(), s));
        Seen paper = paper(List.copyOf(seen.values()), order);
        List<OrderLine> lines = orders.lines(order);
        if (lines.stream().anyMatch(l -> !seen.containsKey(l.item()))) {
            throw Refused.because(
                    "page.old",
                    "A line was added to " + paper.document().number() + " at this moment.",
                    "Look at the order again; nothing was changed.");
        }
        return new Locked(paper, lines, seen);
    }

    /** The paper as bytes: keys in one order, lines in theirs. */
    public byte[] json(String number, String title, String reason, List<Map<String, Object>> lines) {
        Map<String, Object> paper = new LinkedHashMap<>();
        paper.put("order", number);
        paper.put("title", title);
        paper.put("reason", reason);
        paper.put("lines", lines);
        return json.writerWithDefaultPrettyPrinter().writeValueAsBytes(paper);
    }

    /**
     * Writes what the lines say now as the next version, when it says something else than the last one.
     *
     * @param author whose work it is: who reserves revisions by starting an order has not worked on what it asks for
     */
    public void write(Actor actor, long author, long order, String says) {
        Spine spine = spines.spine(order).orElseThrow();
        List<OrderLine> lines = orders.lines(order);
        Map<Long, Spine> items =
                spines.spines(lines.stream().map(OrderLine::item).toList());
        Map<Long, String> labels = orders.labels(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        List<Map<String, Object>> written = new ArrayList<>();
        for (OrderLine line : lines) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("document", items.get(line.item()).document().number());
            one.put("title", items.get(line.item()).document().title());
            one.put("what", line.what().words());
            one.put("from", line.fromRevision().map(labels::get).orElse(""));
            one.put("to", line.toRevision().map(labels::get).orElse(""));
            one.put("reason", line.reason());
            written.add(one);
        }
        Document paper = spine.document();
        byte[] bytes = json(
                paper.number(), paper.title(), orders.order(order).orElseThrow().reason(), written);
        if (ContentHash.compute(bytes).equals(paper.head().content())) return;
        int version = file.version(
                author,
                order,
                paper.pending().orElseThrow().id(),
                paper.fileName(),
                bytes,
                VersionRow.MadeBy.CHECKED_IN,
                says);
        recorder.note(actor, order, "version.added", version, says + ", version " + version, "");
    }

    /** The paper among the locked ones, in the stage in which its lines may change, for somebody who may change it. */
    public Seen outlined(Actor actor, List<Seen> locked, long order) {
        Seen paper = paper(locked, order);
        actor.access().ask(Right.CHANGE, paper.document().place()).ifPresent(r -> {
            throw new Refused(r);
        });
        if (!isOutlined(paper)) {
            throw Refused.because(
                    "order.frozen",
                    paper.document().number() + " is "
                            + paper.document().current().stage().name() + "; its lines stay.",
                    "What comes up later goes on an order of its own.");
        }
        return paper;
    }

    /** Whether its work could still be started: until then its lines may change. */
    public boolean isOutlined(Seen paper) {
        Stage stage = paper.current().stage();
        return house.edition(stage.edition())
                .doing(Effect.START_LINES, stage.code())
                .isPresent();
    }

    private static Seen paper(List<Seen> locked, long order) {
        return locked.stream()
                .filter(s -> s.spine().id() == order && s.all())
                .findFirst()
                .orElseThrow(NotThere::new);
    }
}
