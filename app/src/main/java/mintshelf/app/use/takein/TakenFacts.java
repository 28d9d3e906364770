package mintshelf.app.use.takein;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.FactNames;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import org.springframework.stereotype.Component;

/** The facts of what is taken in: those of its kind's sheet that are said; nothing is preset, nothing is asked for. */
@Component
class TakenFacts {
    private final HouseStore house;
    private final FactNames names;

    TakenFacts(HouseStore house, FactNames names) {
        this.house = house;
        this.names = names;
    }

    /** The short names of all facts, by the keys of their names and labels: how a table may head their columns. */
    Map<String, String> heads() {
        Map<String, String> heads = new LinkedHashMap<>();
        house.facts().forEach(f -> heads.putIfAbsent(Texts.key(f.label()), f.name()));
        house.facts().forEach(f -> heads.put(Texts.key(f.name()), f.name()));
        return heads;
    }

    /** The facts of every kind. */
    Map<Long, List<KindFact>> sheets() {
        return house.factSheets();
    }

    /** What is said of a kind's facts, as far as it can be read, and what cannot. */
    record Read(Map<KindFact, FactValue> values, List<Refusal> refusals) {}

    Read read(Actor actor, List<KindFact> sheet, Map<String, String> said) {
        Map<KindFact, FactValue> values = new LinkedHashMap<>();
        List<Refusal> refusals = new ArrayList<>();
        for (KindFact fact : sheet) {
            String raw = said.getOrDefault(fact.fact().name(), "");
            if (raw.isBlank()) continue;
            Outcome<Optional<FactValue>> read = FactReader.read(fact.fact(), raw, names.of(actor));
            read.refusal().ifPresent(refusals::add);
            if (read instanceof Outcome.Granted<Optional<FactValue>> granted) {
                granted.value().ifPresent(v -> values.put(fact, v));
            }
        }
        return new Read(values, refusals);
    }
}
