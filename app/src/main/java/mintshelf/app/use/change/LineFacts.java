package mintshelf.app.use.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.LineFactStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Service;

/** The facts of documents in force that an order changes, for lines that change nothing else. */
@Service
public class LineFacts {
    private final Sight sight;
    private final ChangePaper papers;
    private final PaperStore orders;
    private final LineFactStore store;
    private final FactStore facts;
    private final FactValues values;
    private final FactsChanged changed;
    private final LineVariants variants;
    private final Acts acts;

    public LineFacts(
            Sight sight,
            ChangePaper papers,
            PaperStore orders,
            LineFactStore store,
            FactStore facts,
            FactValues values,
            FactsChanged changed,
            LineVariants variants,
            Acts acts) {
        this.sight = sight;
        this.papers = papers;
        this.orders = orders;
        this.store = store;
        this.facts = facts;
        this.values = values;
        this.changed = changed;
        this.variants = variants;
        this.acts = acts;
    }

    /**
     * A fact of a line's document.
     *
     * @param now what it is in force
     * @param then what it will be; empty where the order leaves it
     * @param closed why no order changes it
     */
    public record Row(FactDefinition fact, String now, Optional<String> then, Optional<Refusal> closed) {
        /** As in "Price 84 → 79 EUR". */
        public String says() {
            String unit = fact.unit().isEmpty() ? "" : " " + fact.unit();
            return fact.label() + " " + shown(now) + " → " + shown(then.orElse(now)) + unit;
        }

        private static String shown(String value) {
            return value.isEmpty() ? "empty" : value;
        }
    }

    /** The facts of a line's document, in the order of its fact sheet. */
    List<Row> rows(long order, Seen seen) {
        return rows(seen, store.wanted(order).getOrDefault(seen.spine().id(), Map.of()));
    }

    private List<Row> rows(Seen seen, Map<Long, String> wanted) {
        Map<String, String> now =
                seen.document().released().map(r -> facts.facts(r.id())).orElse(Map.of());
        List<Row> rows = new ArrayList<>();
        for (FactDefinition fact : values.sheet(seen.document())) {
            rows.add(new Row(
                    fact,
                    now.getOrDefault(fact.name(), ""),
                    Optional.ofNullable(wanted.get(fact.id())),
                    values.closedToOrders(seen, fact)));
        }
        return rows;
    }

    /** The variants that each line is about, by document, of documents of which work in preparation is seen. */
    Map<Long, LineVariants.Of> variants(long order, List<PaperLine> lines, Map<Long, Seen> seen) {
        return variants.of(
                order,
                lines.stream()
                        .flatMap(l -> Optional.ofNullable(seen.get(l.item())).stream())
                        .filter(Seen::all)
                        .toList());
    }

    /** What each line that changes facts only changes, in words, by document; of documents that are seen. */
    Map<Long, List<String>> says(long order, List<PaperLine> lines, Map<Long, Seen> seen) {
        Map<Long, Map<Long, String>> wanted = store.wanted(order);
        Map<Long, List<String>> says = new HashMap<>();
        for (PaperLine line : lines) {
            Seen document = seen.get(line.item());
            // Once it is done, what was before stands in the notice and in the record.
            if (!line.factsOnly() || document == null || line.toRevision().isPresent()) continue;
            says.put(
                    line.item(),
                    rows(document, wanted.getOrDefault(line.item(), Map.of())).stream()
                            .filter(r ->
                                    r.then().filter(t -> !t.equals(r.now())).isPresent())
                            .map(Row::says)
                            .toList());
        }
        return says;
    }

    /** A line whose facts are said. */
    public record View(Seen order, Seen document, PaperLine line, List<Row> rows) {}

    /** For who may change the order while it is outlined. */
    public View view(Actor actor, long order, long item) {
        if (orders.order(order).isEmpty()) throw new NotThere();
        Seen paper = papers.outlined(actor, List.of(sight.of(actor, order)), order);
        PaperLine line = line(orders.lines(order), item);
        Seen seen = sight.of(actor, item);
        return new View(paper, seen, line, rows(order, seen));
    }

    private static PaperLine line(List<PaperLine> lines, long item) {
        return lines.stream()
                .filter(l -> l.item() == item && l.factsOnly())
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    /** Says what facts of a line will be, as typed by fact name; those that stay as they are fall away. All of it or nothing. */
    public String keep(Actor actor, long order, long item, String key, Map<String, String> typed) {
        return acts.once(actor, key, () -> {
            ChangePaper.Locked locked = papers.locked(actor, order);
            papers.outlined(actor, List.of(locked.paper()), order);
            line(locked.lines(), item);
            Seen seen = locked.documents().get(item);
            Map<Long, String> wanted = new LinkedHashMap<>();
            for (Row row : rows(order, seen)) {
                String raw = typed.get(row.fact().name());
                if (raw == null) continue;
                String value = values.read(actor, row.fact(), raw);
                if (value.equals(row.now())) continue;
                row.closed().ifPresent(r -> {
                    throw new Refused(r);
                });
                wanted.put(row.fact().id(), value);
            }
            store.keep(order, item, wanted);
            papers.write(actor, actor.person(), order, "said which facts change");
            return "/orders/" + order;
        });
    }

    /** What keeps the facts of a line from being changed; nothing where they can. */
    List<Refusal> inTheWay(long order, Seen seen) {
        List<Row> changes =
                rows(order, seen).stream().filter(r -> r.then().isPresent()).toList();
        if (changes.isEmpty()) {
            return List.of(Refusal.of(
                    "order.facts_none",
                    "No fact of " + seen.document().number() + " is said to change.",
                    "Say it on the order, or take the line off."));
        }
        return changes.stream().flatMap(r -> r.closed().stream()).toList();
    }

    /** Changes the facts of all lines that change nothing else, within the act that carries the order out. */
    void carryOut(Actor actor, Seen paper, List<PaperLine> lines, Map<Long, Seen> seen) {
        long order = paper.spine().id();
        Map<Long, Map<Long, String>> wanted = store.wanted(order);
        for (PaperLine line : lines) {
            if (!line.factsOnly()) continue;
            Seen document = seen.get(line.item());
            Map<String, String> typed = new LinkedHashMap<>();
            for (Row row : rows(document, wanted.getOrDefault(line.item(), Map.of()))) {
                row.then().ifPresent(t -> typed.put(row.fact().name(), t));
            }
            List<String> said = values.byOrder(actor, document, typed);
            changed.noteReleased(actor, document, said, paper.document().number());
            orders.setTo(line.id(), document.document().released().orElseThrow().id());
        }
    }
}
