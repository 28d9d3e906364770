package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NumberStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.BomPart;
import mintshelf.core.change.PaperLine;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/** What of a bill of materials changes with orders that are under way: on its parts, and on the drawings of their numbers. */
@Service
public class ReadBomOrders {
    /** Parts that are asked for; of larger ones the first of these. */
    public static final int MOST_PARTS = 5_000;

    private final Sight sight;
    private final OnOrders orders;
    private final NumberStore numbers;

    public ReadBomOrders(Sight sight, OnOrders orders, NumberStore numbers) {
        this.sight = sight;
        this.orders = orders;
        this.numbers = numbers;
    }

    /** A part on which an order does something. */
    public record Touched(BomPart part, PaperLine.What what) {
        public boolean bought() {
            return part.comes().isWhole();
        }
    }

    /** An order under way and the parts that it changes, in the order of the bill. */
    public record Changing(Seen order, List<Touched> parts) {
        /** How many of them are bought. */
        public long bought() {
            return parts.stream().filter(Touched::bought).count();
        }
    }

    /** Those that the actor sees; four statements, and one an order. */
    public List<Changing> of(Actor actor, ReadBom.Read read) {
        Map<Long, BomPart> parts = new LinkedHashMap<>();
        Map<String, BomPart> byKey = new LinkedHashMap<>();
        List<NumberKey> keys = new ArrayList<>();
        for (int i = 0; i < Math.min(read.bom().size(), MOST_PARTS); i++) {
            BomPart part = read.bom().part(i);
            if (part.item() <= 0) continue;
            parts.putIfAbsent(part.item(), part);
            if (NumberKey.of(part.number()) instanceof Outcome.Granted<NumberKey> key
                    && byKey.putIfAbsent(key.value().key(), part) == null) keys.add(key.value());
        }
        numbers.items(keys)
                .forEach((key, items) -> items.forEach(i -> {
                    BomPart part = byKey.get(key);
                    if (part != null) parts.putIfAbsent(i, part);
                }));
        List<OnOrders.UnderWay> all = orders.underWay(actor, parts.keySet());
        // What bore a number formerly is another thing now, and what the actor does not see is not told.
        Map<Long, Seen> seen = sight.of(
                actor,
                all.stream()
                        .flatMap(o -> o.lines().stream())
                        .map(PaperLine::item)
                        .distinct()
                        .toList());
        List<Changing> changing = new ArrayList<>();
        for (OnOrders.UnderWay one : all) {
            Map<String, Touched> touched = new LinkedHashMap<>();
            for (PaperLine line : one.lines()) {
                BomPart part = parts.get(line.item());
                Seen document = seen.get(line.item());
                boolean its = part != null
                        && document != null
                        && (part.item() == line.item()
                                || Texts.key(document.document().number()).equals(Texts.key(part.number())));
                if (its) touched.putIfAbsent(part.number(), new Touched(part, line.what()));
            }
            if (!touched.isEmpty()) changing.add(new Changing(one.order(), List.copyOf(touched.values())));
        }
        return changing;
    }
}
