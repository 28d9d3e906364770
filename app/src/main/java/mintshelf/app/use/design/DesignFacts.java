package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.FreshFacts;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Refusal;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactsAlong;
import org.springframework.stereotype.Component;

/** What the documents of a new design say of themselves; one statement for all of them. */
@Component
class DesignFacts {
    private final FreshFacts fresh;
    private final FactStore facts;
    private final HouseStore house;

    DesignFacts(FreshFacts fresh, FactStore facts, HouseStore house) {
        this.fresh = fresh;
        this.facts = facts;
        this.house = house;
    }

    /** By the documents that they begin from: what goes along, with what is said otherwise in the new design. */
    Map<Long, Map<String, String>> said(Wish.Design wish, List<Outline.Copy> copies) {
        Map<Long, Map<String, String>> before = facts.facts(copies.stream()
                .map(c -> c.from().version().revision())
                .distinct()
                .toList());
        Map<Long, Map<String, String>> said = new HashMap<>();
        for (Outline.Copy copy : copies)
            said.put(
                    copy.from().id(),
                    said(wish, copy, before.getOrDefault(copy.from().version().revision(), Map.of())));
        return said;
    }

    private Map<String, String> said(Wish.Design wish, Outline.Copy copy, Map<String, String> before) {
        FactsAlong along = fresh.along(before, kind(copy));
        Map<String, String> said = new LinkedHashMap<>(along.kept());
        Set<String> cleared = along.cleared().stream().map(FactDefinition::name).collect(Collectors.toSet());
        for (Wish.Design.Fact fact : wish.facts()) {
            String was = said.get(fact.name());
            // What its kind wants said anew can be said here.
            boolean meant = fact.from().isEmpty()
                    ? was != null || cleared.contains(fact.name())
                    : fact.from().equals(was);
            if (meant) said.put(fact.name(), fact.to());
        }
        return said;
    }

    private Kind kind(Outline.Copy copy) {
        return house.kind(copy.from().seen().document().place().kind());
    }

    /** What their kinds need from the start and they would not say; each once. */
    List<Refusal> lacks(Actor actor, List<Outline.Copy> copies, Map<Long, Map<String, String>> said) {
        Set<Refusal> lacks = new LinkedHashSet<>();
        for (Outline.Copy copy : copies) {
            Map<String, String> says =
                    Optional.ofNullable(said.get(copy.from().id())).orElse(Map.of());
            fresh.lacks(actor, kind(copy), says)
                    .ifPresent(fact -> lacks.add(Refusal.of(
                            "fact.missing",
                            "The kind " + kind(copy).name() + " needs " + fact.label()
                                    + " from the start, and a copy begins without it.",
                            "Say it under Facts.")));
        }
        return new ArrayList<>(lacks);
    }
}
