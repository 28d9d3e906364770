package mintshelf.app.use.change;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.OpenPapers;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.DispositionStore;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.change.Disposition;
import mintshelf.core.change.Disposition.Place;
import mintshelf.core.change.PaperLine;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What becomes of the old ones of an order's lines: read with its totals, and said line by line until its board decides. */
@Service
public class KeepDisposition {
    private final Sight sight;
    private final PaperStore orders;
    private final DispositionStore store;
    private final ChangePaper papers;
    private final PartWorth worth;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepDisposition(
            Sight sight,
            PaperStore orders,
            DispositionStore store,
            ChangePaper papers,
            PartWorth worth,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.orders = orders;
        this.store = store;
        this.papers = papers;
        this.worth = worth;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * A line with old ones; a document that the person may not see has none here.
     *
     * @param each what one of its part costs, as the revision in force says: "48.00"; empty where nobody said it
     * @param currency of the house
     * @param variants that the revision in force covers
     */
    public record Line(Seen seen, Map<Place, Disposition> at, String each, String currency, List<String> variants) {
        public Disposition.Totals totals() {
            return Disposition.totals(at.values());
        }

        /** What is said of a place; null for nothing. */
        public Disposition of(Place place) {
            return at.get(place);
        }

        /** What somebody still has to find out, as in "in the field: what becomes of them". */
        public List<String> unknown() {
            return at.values().stream()
                    .filter(d -> !d.unknown().isEmpty())
                    .map(d -> d.place().words() + ": " + String.join(", ", d.unknown()))
                    .toList();
        }
    }

    /**
     * @param lines those that have old ones: not what is released for the first time
     * @param edits whether the actor may say something now
     */
    public record View(Seen order, List<Line> lines, Disposition.Totals totals, boolean edits) {
        public boolean isSaid() {
            return lines.stream().anyMatch(l -> !l.at().isEmpty());
        }

        /** The line of a document; empty for none. */
        public Optional<Line> line(long item) {
            return lines.stream().filter(l -> l.seen().spine().id() == item).findFirst();
        }

        /** The line after that of a document, round from the last to the first. */
        public long after(long item) {
            for (int i = 0; i < lines.size(); i++) {
                if (lines.get(i).seen().spine().id() == item) {
                    return lines.get((i + 1) % lines.size()).seen().spine().id();
                }
            }
            return item;
        }
    }

    public View view(Actor actor, long order) {
        Seen seen = sight.of(actor, order);
        if (orders.order(order).isEmpty()) throw new NotThere();
        List<PaperLine> lines =
                orders.lines(order).stream().filter(l -> l.hasOld()).toList();
        Map<Long, Seen> documents =
                sight.of(actor, lines.stream().map(PaperLine::item).toList());
        Map<Long, Map<Place, Disposition>> said = new HashMap<>();
        store.of(order)
                .forEach(d -> said.computeIfAbsent(d.item(), i -> new EnumMap<>(Place.class))
                        .put(d.place(), d));
        Map<Long, PartWorth.Of> parts = worth.of(documents.values());
        List<Line> shown = lines.stream()
                .map(l -> documents.get(l.item()))
                .filter(Objects::nonNull)
                .map(s -> line(
                        s,
                        said.getOrDefault(s.spine().id(), Map.of()),
                        parts.get(s.spine().id())))
                .toList();
        List<Disposition> all =
                shown.stream().flatMap(l -> l.at().values().stream()).toList();
        return new View(seen, shown, Disposition.totals(all), OpenPapers.mayWrite(actor, seen));
    }

    private static Line line(Seen seen, Map<Place, Disposition> at, PartWorth.@Nullable Of part) {
        if (part == null) return new Line(seen, at, "", "", List.of());
        return new Line(
                seen, at, part.each().map(BigDecimal::toPlainString).orElse(""), part.currency(), part.variants());
    }

    /** Says it of one line, in place of what was said of it before. */
    public String keep(Actor actor, long order, long item, String key, Map<Place, Disposition.Written> written) {
        List<Disposition> said = new ArrayList<>();
        written.forEach((place, one) ->
                Disposition.of(item, place, one).orElseThrow(Refused::new).ifPresent(said::add));
        return acts.once(actor, key, () -> {
            Seen paper = sight.lockedWithPapers(actor, List.of(order)).get(0);
            if (orders.order(order).isEmpty() || !paper.all()) throw new NotThere();
            if (!OpenPapers.mayWrite(actor, paper)) {
                throw Refused.because(
                        "paper.frozen",
                        paper.document().number() + " is "
                                + paper.current().stage().name() + "; what it says stays.",
                        "Take it back first; nothing was changed.");
            }
            PaperLine line = orders.lines(order).stream()
                    .filter(l -> l.item() == item && l.hasOld())
                    .findFirst()
                    .orElseThrow(NotThere::new);
            Seen document = sight.of(actor, line.item());
            store.keep(order, item, said, actor.person(), clock.instant());
            papers.write(actor, actor.person(), order, "said what becomes of old ones");
            recorder.note(
                    actor,
                    order,
                    "disposition.said",
                    "said what becomes of the old " + document.document().number(),
                    String.join(
                            "; ",
                            said.stream()
                                    .map(d -> d.place().words() + " " + d.words())
                                    .toList()));
            return "/orders/" + order + "/disposition";
        });
    }
}
