package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Requests;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.Cause;
import mintshelf.core.change.LineTable;
import mintshelf.core.change.LineTable.Does;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import org.springframework.stereotype.Service;

/** Lines of a request or an order as a table: they go out, are worked on elsewhere, and come back after a look at what that does. */
@Service
public class LinesAsTable {
    private final Sight sight;
    private final Numbered numbered;
    private final PaperStore papers;
    private final ChangePaper written;
    private final Requests requests;
    private final WriteRequest write;
    private final EditOrder edit;
    private final AskForChange ask;
    private final Acts acts;

    public LinesAsTable(
            Sight sight,
            Numbered numbered,
            PaperStore papers,
            ChangePaper written,
            Requests requests,
            WriteRequest write,
            EditOrder edit,
            AskForChange ask,
            Acts acts) {
        this.sight = sight;
        this.numbered = numbered;
        this.papers = papers;
        this.written = written;
        this.requests = requests;
        this.write = write;
        this.edit = edit;
        this.ask = ask;
        this.acts = acts;
    }

    /** A table as it goes out. */
    public record Table(String number, List<List<String>> rows) {}

    /** For who sees the paper with work in preparation; a line over a document that they may not see is left out. */
    public Table table(Actor actor, long paper) {
        Seen seen = sight.of(actor, paper);
        if (!seen.all() || papers.paper(paper).isEmpty()) throw new NotThere();
        List<PaperLine> all = papers.lines(paper);
        Map<Long, Seen> documents =
                sight.of(actor, all.stream().map(PaperLine::item).toList());
        List<Long> named = new ArrayList<>();
        all.forEach(l -> {
            l.fromRevision().ifPresent(named::add);
            l.toRevision().ifPresent(named::add);
        });
        Map<Long, String> labels = papers.labels(named);
        List<List<String>> rows = new ArrayList<>();
        rows.add(LineTable.COLUMNS);
        for (PaperLine line : all) {
            Seen document = documents.get(line.item());
            if (document == null) continue;
            rows.add(List.of(
                    document.document().number(),
                    document.document().title(),
                    line.what().words(),
                    line.fromRevision().map(labels::get).orElse(""),
                    line.toRevision().map(labels::get).orElse(""),
                    line.reason()));
        }
        return new Table(seen.document().number(), rows);
    }

    /**
     * A row of a table that came back.
     *
     * @param seen its document; empty for a number that the actor does not see
     */
    public record Row(LineTable.Planned planned, Optional<Seen> seen, Optional<Refusal> refusal) {}

    public record Plan(Seen paper, boolean order, List<Row> rows, int untouched) {
        public long added() {
            return count(Does.ADDED);
        }

        public long changed() {
            return count(Does.CHANGED);
        }

        /** In words: "1 line is added, 2 change". */
        public String says() {
            if (added() + changed() == 0) return "Nothing would change";
            String added = added() == 0 ? "" : Numbers.count(added(), "line is added", "lines are added");
            String changed = changed() == 0 ? "" : Numbers.count(changed(), "line changes", "lines change");
            return added + (added.isEmpty() || changed.isEmpty() ? "" : ", ") + changed;
        }

        private long count(Does does) {
            return rows.stream()
                    .filter(r -> r.refusal().isEmpty() && r.planned().does() == does)
                    .count();
        }

        public List<Refusal> refusals() {
            return rows.stream().flatMap(r -> r.refusal().stream()).toList();
        }

        public boolean opens() {
            return refusals().isEmpty() && added() + changed() > 0;
        }
    }

    /**
     * What a table would do to the lines; nothing is changed.
     *
     * @param down whether an empty reason is the one above it
     */
    public Plan plan(Actor actor, long paper, byte[] file, boolean down) {
        return plan(actor, paper, read(file, down));
    }

    private static List<LineTable.Row> read(byte[] file, boolean down) {
        List<List<String>> cells = TableFiles.read(file, LineTable.MOST + 1).orElseThrow(Refused::new);
        return LineTable.read(cells, down).orElseThrow(Refused::new);
    }

    private Plan plan(Actor actor, long paper, List<LineTable.Row> rows) {
        PaperStore.Paper said = papers.paper(paper).orElseThrow(NotThere::new);
        boolean order = said.type() == PaperType.ORDER;
        Seen seen = sight.of(actor, paper);
        if (order) written.outlined(actor, List.of(seen), paper);
        else written.written(actor, List.of(seen), paper);
        Map<Long, PaperLine> there = new LinkedHashMap<>();
        papers.lines(paper).forEach(l -> there.put(l.item(), l));
        Map<Long, Seen> documents = sight.of(actor, there.keySet());
        List<LineTable.Line> known = there.values().stream()
                .filter(l -> documents.containsKey(l.item()))
                .map(l -> new LineTable.Line(documents.get(l.item()).document().number(), l.what(), l.reason()))
                .toList();
        Map<String, Seen> named = new HashMap<>(
                numbered.named(actor, rows.stream().map(LineTable.Row::number).toList()));
        // A former number means the document as the one does that it bears now.
        List<LineTable.Row> now = rows.stream()
                .map(r -> Optional.ofNullable(named.get(r.number()))
                        .map(d -> r.named(d.document().number()))
                        .orElse(r))
                .toList();
        List.copyOf(named.values()).forEach(d -> named.put(d.document().number(), d));
        List<LineTable.Planned> plan = LineTable.plan(now, known, order);
        Map<Long, Refusal> kept = kept(
                actor,
                order,
                plan.stream()
                        .filter(p -> p.does() == Does.ADDED)
                        .flatMap(p -> Optional.ofNullable(named.get(p.row().number())).stream())
                        .toList());
        List<Row> out = new ArrayList<>();
        for (LineTable.Planned one : plan) {
            Optional<Seen> document = Optional.ofNullable(named.get(one.row().number()));
            Optional<Refusal> refusal = one.refusal()
                    .or(() -> document.isPresent()
                            ? Optional.empty()
                            : Optional.of(Refusal.of(
                                    "number.unknown",
                                    one.row().number() + " is the number of no document that you see.",
                                    "Leave row " + one.row().at() + " out.")))
                    .or(() -> document.map(d -> kept.get(d.spine().id())));
            out.add(new Row(one, document, refusal));
        }
        long touched = plan.stream().filter(p -> p.does() != Does.ADDED).count();
        return new Plan(seen, order, out, (int) Math.max(0, there.size() - touched));
    }

    /** Why documents that a table adds cannot be lines, by document. */
    private Map<Long, Refusal> kept(Actor actor, boolean order, List<Seen> added) {
        Map<Long, Refusal> kept = new HashMap<>();
        if (added.isEmpty()) return kept;
        if (added.size() > AskForChange.MOST) {
            throw Refused.because(
                    "order.many",
                    "The table adds " + added.size() + " documents.",
                    AskForChange.MOST + " are the most on a paper; nothing was changed.");
        }
        List<Long> items = added.stream().map(s -> s.spine().id()).toList();
        if (order) {
            ask.plan(actor, items).forEach(r -> {
                r.refusal().ifPresent(x -> kept.put(r.seen().spine().id(), x));
                if (r.refusal().isEmpty() && !r.ahead().isEmpty()) {
                    kept.put(
                            r.seen().spine().id(),
                            Refusal.of(
                                    "order.other",
                                    r.seen().document().number() + " is on " + r.last() + " already.",
                                    "Ask for its change from its own page, where the order of the two is seen."));
                }
            });
        } else {
            requests.rows(actor, items)
                    .forEach(r ->
                            r.refusal().ifPresent(x -> kept.put(r.seen().spine().id(), x)));
        }
        return kept;
    }

    /** Does what the plan says; all of it or nothing. */
    public String take(Actor actor, long paper, String key, byte[] file, boolean down) {
        List<LineTable.Row> read = read(file, down);
        return acts.once(actor, key, () -> {
            Plan plan = plan(actor, paper, read);
            Refused.unlessEmpty(plan.refusals(), "table.refused", "Nothing was changed.");
            Map<Long, PaperLine> byItem = new HashMap<>();
            papers.lines(paper).forEach(l -> byItem.put(l.item(), l));
            Map<Long, String> reasons = new HashMap<>();
            Map<Long, String> fresh = new LinkedHashMap<>();
            Map<Long, String> withdrawn = new HashMap<>();
            List<Long> facts = new ArrayList<>();
            List<Long> revised = new ArrayList<>();
            for (Row row : plan.rows()) {
                long item = row.seen().orElseThrow().spine().id();
                String reason = row.planned().row().reason().orElse("");
                PaperLine line = byItem.get(item);
                if (line == null) {
                    fresh.put(item, reason);
                    continue;
                }
                if (row.planned().does() != Does.CHANGED) continue;
                row.planned().row().reason().ifPresent(r -> reasons.put(line.id(), r));
                row.planned().row().what().filter(w -> w != line.what()).ifPresent(w -> {
                    if (w == PaperLine.What.WITHDRAW) withdrawn.put(line.id(), "");
                    else if (w == PaperLine.What.FACTS) facts.add(line.id());
                    else revised.add(line.id());
                });
            }
            return plan.order()
                    ? order(
                            actor,
                            paper,
                            key,
                            fresh,
                            new EditOrder.Written("", reasons, List.of(), withdrawn, facts, revised, Map.of(), "", ""))
                    : request(actor, paper, key, fresh, reasons);
        });
    }

    private String order(Actor actor, long paper, String key, Map<Long, String> fresh, EditOrder.Written lines) {
        PaperStore.Paper said = papers.paper(paper).orElseThrow();
        String second = Acts.following(key);
        String to = edit.edit(
                actor,
                paper,
                second,
                lines.saying(
                        said.reason(),
                        said.effective().map(e -> e.by().name()).orElse(""),
                        said.effective().map(e -> e.from()).orElse("")));
        return fresh.isEmpty() ? to : ask.addTo(actor, paper, fresh.keySet(), Acts.following(second), fresh);
    }

    private String request(Actor actor, long paper, String key, Map<Long, String> fresh, Map<Long, String> reasons) {
        PaperStore.Paper said = papers.paper(paper).orElseThrow();
        String second = Acts.following(key);
        String third = Acts.following(second);
        String to = fresh.isEmpty() ? "/requests/" + paper : write.name(actor, paper, second, fresh.keySet());
        Map<Long, String> all = new HashMap<>(reasons);
        papers.lines(paper).forEach(l -> {
            if (fresh.containsKey(l.item())) all.put(l.id(), fresh.get(l.item()));
        });
        write.say(actor, paper, third, said.reason(), Cause.of(said.cause()), said.priority(), all, List.of());
        return to;
    }
}
