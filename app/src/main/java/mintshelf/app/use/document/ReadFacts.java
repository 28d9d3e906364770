package mintshelf.app.use.document;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FactValues;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.record.RecordStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.fact.FactType;
import org.springframework.stereotype.Component;

/** The facts of a document: their values as people read them, who may type them, when they were typed. */
@Component
public class ReadFacts {
    /** Entries of a document's record that are looked through for changes of facts. */
    private static final int LOOKED_AT = 60;

    private final FactStore facts;
    private final HouseStore house;
    private final FactNames names;
    private final FactValues typing;
    private final RecordStore record;

    public ReadFacts(FactStore facts, HouseStore house, FactNames names, FactValues typing, RecordStore record) {
        this.facts = facts;
        this.house = house;
        this.names = names;
        this.typing = typing;
        this.record = record;
    }

    /**
     * A fact with its value.
     *
     * @param value as kept and typed
     * @param shown as people read it, with its unit
     * @param item the document that it names; 0 for none
     * @param closed why the actor may not type it; nothing when they may
     */
    public record Line(KindFact fact, String value, String shown, long item, Optional<Refusal> closed) {
        public boolean isOpen() {
            return closed.isEmpty();
        }

        public FactType type() {
            return fact.fact().type();
        }
    }

    /** The facts of the revision that an actor sees, in the order of the kind's fact sheet. */
    List<Line> lines(Actor actor, Seen seen) {
        List<KindFact> sheet =
                house.factSheets().getOrDefault(seen.document().place().kind(), List.of());
        Map<String, String> values = facts.facts(seen.current().id());
        Map<String, FactNames.Shown> shown =
                names.shown(actor, sheet.stream().map(KindFact::fact).toList(), values);
        return sheet.stream()
                .map(f -> {
                    FactNames.Shown as = shown.getOrDefault(f.fact().name(), FactNames.Shown.NOTHING);
                    return new Line(
                            f,
                            values.getOrDefault(f.fact().name(), ""),
                            as.text(),
                            as.item(),
                            typing.closed(actor, seen, f.fact()));
                })
                .toList();
    }

    /** A change of the title or of facts without a new version. */
    public record Typed(Instant at, String by, String says) {}

    /** The latest of them, for who sees work in preparation. */
    List<Typed> typed(Seen seen) {
        if (!seen.all()) return List.of();
        return record.ofItem(seen.spine().id(), Integer.MAX_VALUE, LOOKED_AT).stream()
                .filter(s -> s.entry().act().equals("facts.changed"))
                .map(s -> new Typed(s.entry().at(), s.personName(), s.entry().says()))
                .toList();
    }
}
