package mintshelf.app.effect;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.FactNames;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import mintshelf.core.fact.FactsAlong;
import mintshelf.core.fact.RequiredAt;
import org.springframework.stereotype.Component;

/** What a new document that begins as a copy says of itself. */
@Component
public class FreshFacts {
    private final FactStore facts;
    private final HouseStore house;
    private final FactPresets presets;
    private final FactNames names;

    public FreshFacts(FactStore facts, HouseStore house, FactPresets presets, FactNames names) {
        this.facts = facts;
        this.house = house;
        this.presets = presets;
        this.names = names;
    }

    /** The facts of a kind, in their order. */
    public List<KindFact> sheet(Kind kind) {
        return house.factSheets().getOrDefault(kind.id(), List.of());
    }

    /** What the other one says, in a revision of it. */
    Map<String, String> before(long revision) {
        return facts.facts(revision);
    }

    /** What goes along into a document of a kind, and what its kind leaves to be said anew. */
    public FactsAlong along(Seen from, Kind kind) {
        return along(from.current().id(), kind);
    }

    /** As {@link #along(Seen, Kind)}, of what a revision says. */
    public FactsAlong along(long revision, Kind kind) {
        return along(before(revision), kind);
    }

    /** As {@link #along(Seen, Kind)}, of what is known of it. */
    public FactsAlong along(Map<String, String> before, Kind kind) {
        return FactsAlong.of(
                before,
                sheet(kind).stream()
                        .map(f -> new FactsAlong.Sheet(f.fact(), f.cleared()))
                        .toList());
    }

    /** The first fact that a kind needs from the start and that would be empty; nothing where none would. */
    public Optional<FactDefinition> lacks(Actor actor, Kind kind, Map<String, String> said) {
        Map<String, String> all = said(actor, kind, said);
        return sheet(kind).stream()
                .filter(f -> f.required() == RequiredAt.FILING)
                .map(KindFact::fact)
                .filter(f -> all.getOrDefault(f.name(), "").isBlank())
                .findFirst();
    }

    /** What is preset where nobody says otherwise, and what is said. */
    public Map<String, String> said(Actor actor, Kind kind, Map<String, String> said) {
        return presets.said(actor.login(), sheet(kind), said);
    }

    /** The values of what is said; refused where one is none, or where the kind needs one from the start. */
    Map<KindFact, FactValue> read(Actor actor, Kind kind, Map<String, String> said) {
        Map<KindFact, FactValue> values = new LinkedHashMap<>();
        Map<String, String> all = said(actor, kind, said);
        for (KindFact fact : sheet(kind)) {
            Optional<FactValue> value = FactReader.read(
                            fact.fact(), all.getOrDefault(fact.fact().name(), ""), names.of(actor))
                    .orElseThrow(Refused::new);
            if (value.isEmpty() && fact.required() == RequiredAt.FILING) {
                throw Refused.because(
                        "fact.missing",
                        fact.fact().label() + " is empty.",
                        "Its kind needs it from the start; nothing was made.");
            }
            value.ifPresent(v -> values.put(fact, v));
        }
        return values;
    }
}
