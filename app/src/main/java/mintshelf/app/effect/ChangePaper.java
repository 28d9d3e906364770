package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.OpenPapers;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.ImpactStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Impact;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Document;
import mintshelf.core.document.Stage;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** A request or an order as a paper: its versions are what it says, as canonical JSON, so that sign-offs bind to them. */
@Component
public class ChangePaper {
    private final Sight sight;
    private final PaperStore orders;
    private final ImpactStore impact;
    private final RequestStore requests;
    private final SpineStore spines;
    private final FilePaper file;
    private final HouseStore house;
    private final JsonMapper json;
    private final PaperSays says;

    ChangePaper(
            Sight sight,
            PaperStore orders,
            ImpactStore impact,
            RequestStore requests,
            SpineStore spines,
            FilePaper file,
            HouseStore house,
            JsonMapper json,
            PaperSays says) {
        this.sight = sight;
        this.orders = orders;
        this.impact = impact;
        this.requests = requests;
        this.spines = spines;
        this.file = file;
        this.house = house;
        this.json = json;
        this.says = says;
    }

    /**
     * An order's paper with its documents under one lock, in one order, and its lines as they stand under it. A line that came between
     * looking and locking is refused in words, for its document is not locked.
     */
    public record Locked(Seen paper, List<PaperLine> lines, Map<Long, Seen> documents) {}

    public Locked locked(Actor actor, long order) {
        if (orders.order(order).isEmpty()) throw new NotThere();
        List<Long> all = new ArrayList<>(
                orders.lines(order).stream().map(PaperLine::item).toList());
        all.add(order);
        // With those that wait for it and with its requests, all in one order: they move when it ends.
        Set<Long> together = new TreeSet<>(all);
        together.addAll(orders.behind(order));
        together.addAll(requests.requestsOf(order));
        spines.lock(together);
        Map<Long, Seen> seen = new LinkedHashMap<>();
        sight.lockedWithPapers(actor, all).forEach(s -> seen.put(s.spine().id(), s));
        Seen paper = paper(List.copyOf(seen.values()), order);
        List<PaperLine> lines = orders.lines(order);
        if (lines.stream().anyMatch(l -> !seen.containsKey(l.item()))) {
            throw Refused.because(
                    "page.old",
                    "A line was added to " + paper.document().number() + " at this moment.",
                    "Look at the order again; nothing was changed.");
        }
        return new Locked(paper, lines, seen);
    }

    /** A paper that says nothing yet but why; its lines follow. Keys in one order, lines in theirs. */
    public byte[] begun(PaperType type, String number, String title, String reason) {
        return json.writerWithDefaultPrettyPrinter().writeValueAsBytes(head(type, number, title, reason));
    }

    private static Map<String, Object> head(PaperType type, String number, String title, String reason) {
        Map<String, Object> paper = new LinkedHashMap<>();
        paper.put(type == PaperType.ORDER ? "order" : "request", number);
        paper.put("title", title);
        paper.put("reason", reason);
        paper.put("lines", List.of());
        return paper;
    }

    /**
     * Writes what the lines say now as the next version, when it says something else than the last one.
     *
     * @param author whose work it is: who reserves revisions by starting an order has not worked on what it asks for
     */
    public void write(Actor actor, long author, long order, String comment) {
        Spine spine = spines.spine(order).orElseThrow();
        List<PaperLine> lines = orders.lines(order);
        Map<Long, Spine> items = spines.spines(lines.stream()
                .flatMap(l -> Stream.concat(Stream.of(l.item()), l.successor().stream()))
                .toList());
        Map<Long, String> labels = orders.labels(lines.stream()
                .flatMap(l -> Stream.concat(l.fromRevision().stream(), l.toRevision().stream()))
                .toList());
        Map<Long, List<String>> variants = says.variants(order);
        List<Map<String, Object>> written = new ArrayList<>();
        for (PaperLine line : lines) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("document", items.get(line.item()).document().number());
            one.put("title", items.get(line.item()).document().title());
            one.put("what", line.what().words());
            one.put("from", line.fromRevision().map(labels::get).orElse(""));
            one.put("to", line.toRevision().map(labels::get).orElse(""));
            one.put("reason", line.reason());
            Optional.ofNullable(variants.get(line.item())).ifPresent(names -> one.put("variants", names));
            one.put("interchangeable", line.interchangeable());
            line.successor()
                    .ifPresent(i -> one.put("instead", items.get(i).document().number()));
            written.add(one);
        }
        Document paper = spine.document();
        PaperStore.Paper said = orders.paper(order).orElseThrow();
        Map<String, Object> all = head(said.type(), paper.number(), paper.title(), said.reason());
        all.put("lines", written);
        if (said.type() == PaperType.REQUEST) {
            all.put("cause", Cause.of(said.cause()).map(Cause::words).orElse(""));
            all.put("priority", said.priority().words());
        }
        said.effective().ifPresent(e -> all.put("effective", e.words()));
        put(all, "facts", says.facts(order, lines, items));
        put(all, "old", says.old(order, items));
        put(all, "goals", says.goals(order, said.type() == PaperType.ORDER));
        put(all, "evidence", evidence(order));
        put(all, "reach", said(order));
        byte[] bytes = json.writerWithDefaultPrettyPrinter().writeValueAsBytes(all);
        if (ContentHash.compute(bytes).equals(paper.head().content())) return;
        int version = file.version(
                author,
                order,
                paper.pending().orElseThrow().id(),
                paper.fileName(),
                bytes,
                VersionRow.MadeBy.CHECKED_IN,
                comment);
        file.noteVersion(actor, order, version, comment);
    }

    private static void put(Map<String, Object> paper, String key, List<?> rows) {
        if (!rows.isEmpty()) paper.put(key, rows);
    }

    /** Versions by their hashes: what a paper goes by cannot be another thing later. */
    private List<Map<String, Object>> evidence(long paper) {
        List<RequestStore.Evidence> all = requests.evidence(paper);
        Map<Long, VersionRow> versions = file.versions(all);
        Map<Long, Spine> items = spines.spines(
                all.stream().map(RequestStore.Evidence::item).distinct().toList());
        List<Map<String, Object>> rows = new ArrayList<>();
        for (RequestStore.Evidence one : all) {
            VersionRow version = versions.get(one.version());
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("document", items.get(one.item()).document().number());
            row.put("version", version.number());
            row.put("sha256", version.content().hash().hex());
            one.against().ifPresent(old -> row.put("against", versions.get(old).number()));
            // Not the chapter's name: who reads a request need not see the paper.
            one.spot().ifPresent(spot -> row.put("page", spot.page()));
            row.put("note", one.note());
            rows.add(row);
        }
        return rows;
    }

    /** What people said against the rule of how far it reaches, in the order of the documents: the board decides on that, too. */
    private List<Map<String, Object>> said(long paper) {
        Map<Long, ImpactStore.Said> all = new TreeMap<>(impact.said(paper));
        Map<Long, Spine> items = spines.spines(all.keySet());
        List<Map<String, Object>> said = new ArrayList<>();
        all.forEach((item, one) -> {
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("document", items.get(item).document().number());
            one.interchangeable().ifPresent(i -> row.put("interchangeable", i));
            one.against()
                    .ifPresent(o -> row.put(
                            "verdict", o.verdict().map(Impact.Verdict::words).orElse("is not touched")));
            row.put("reason", one.why());
            said.add(row);
        });
        return said;
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

    /** Why a request stays as it is though it is not decided on: the board decides on it with its order at this moment. */
    public Optional<Refusal> withOrder(long request) {
        return requests.isDecidedWithOrder(request)
                ? Optional.of(Refusal.of(
                        "paper.with_order",
                        "The board decides on it with its order at this moment.",
                        "Take the order back first; nothing was changed."))
                : Optional.empty();
    }

    /** The request among the locked ones, for somebody who may change what it says now. */
    public Seen written(Actor actor, List<Seen> locked, long request) {
        Seen paper = paper(locked, request);
        if (orders.request(request).isEmpty()) throw new NotThere();
        if (!OpenPapers.mayWrite(actor, paper)) {
            throw Refused.because(
                    "paper.frozen",
                    paper.document().number() + " is " + paper.current().stage().name() + "; what it says stays.",
                    "Take it back first; nothing was changed.");
        }
        withOrder(request).ifPresent(r -> {
            throw new Refused(r);
        });
        return paper;
    }

    private static Seen paper(List<Seen> locked, long order) {
        return locked.stream()
                .filter(s -> s.spine().id() == order && s.all())
                .findFirst()
                .orElseThrow(NotThere::new);
    }
}
