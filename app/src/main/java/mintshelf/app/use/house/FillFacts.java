package mintshelf.app.use.house;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/**
 * Fills a fact of documents under way that lack it: what a kind requires since its last edition. What says something already keeps it, and
 * what is in force stays as it is.
 */
@Service
public class FillFacts implements SetAct {
    /** As many as one plan takes. */
    private static final int MOST = 5_000;

    private final Sight sight;
    private final HouseStore house;
    private final FactStore facts;
    private final FactValues values;
    private final FactsChanged changed;

    FillFacts(Sight sight, HouseStore house, FactStore facts, FactValues values, FactsChanged changed) {
        this.sight = sight;
        this.house = house;
        this.facts = facts;
        this.values = values;
        this.changed = changed;
    }

    @Override
    public Run.What what() {
        return Run.What.FILL;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Fill " + fact(wish).label() + " of " + Numbers.count(going.size(), "document", "documents") + " with “"
                + Texts.shorten(wish.words(), 100) + "”";
    }

    /** How many documents under way of a kind lack each of its facts, by the facts' short names. */
    public Map<String, Integer> lacking(Actor actor, String kind) {
        HouseRules.ask(actor);
        return facts.lacking(kind(kind));
    }

    /** The documents under way of a kind that lack a fact, in the order in which they were filed. */
    public List<Long> lacking(Actor actor, String kind, String fact) {
        HouseRules.ask(actor);
        return facts.lacking(kind(kind), fact(Wish.fill(fact, "")).id(), MOST);
    }

    private long kind(String code) {
        return house.kindCalled(code).orElseThrow(NotThere::new).id();
    }

    private FactDefinition fact(Wish wish) {
        String name = wish.move().orElseThrow(NotThere::new);
        return house.facts().stream()
                .filter(f -> f.name().equals(name))
                .findFirst()
                .orElseThrow(NotThere::new);
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        HouseRules.ask(actor);
        FactDefinition fact = fact(wish);
        Map<Long, Seen> all = sight.of(actor, items);
        Map<Long, Set<String>> filled =
                facts.filled(all.values().stream().map(s -> s.current().id()).toList());
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Seen seen : all.values()) {
            PlanLine line = new PlanLine(
                    seen,
                    expected(seen),
                    Optional.empty(),
                    Optional.empty(),
                    seen.current().label(),
                    seen.current().stage().stageClass() == StageClass.DECIDING
                            ? List.of("what was signed so far falls")
                            : List.of());
            if (!seen.all()) {
                rows.add(Plan.Row.asked(line, List.of(SetAct.notShown(seen))));
                continue;
            }
            boolean has = filled.getOrDefault(seen.current().id(), Set.of()).contains(fact.name());
            boolean on = values.sheet(seen.document()).contains(fact);
            rows.add(
                    has || !on || seen.pending().isEmpty()
                            ? Plan.Row.stays(line)
                            : Plan.Row.asked(
                                    line,
                                    values.closed(actor, seen, fact).stream().toList()));
        }
        return new Plan<>(rows);
    }

    private static String expected(Seen seen) {
        return Long.toString(seen.current().id());
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        HouseRules.ask(actor);
        FactDefinition fact = fact(wish);
        Map<Long, String> expected = new LinkedHashMap<>();
        due.forEach(d -> expected.put(d.item(), d.expected()));
        Map<Long, Run.Row> became = new LinkedHashMap<>();
        for (Seen seen : sight.locked(actor, expected.keySet())) {
            long item = seen.spine().id();
            if (!expected(seen).equals(expected.get(item)) || seen.pending().isEmpty()) {
                throw Refused.because(
                        "page.old",
                        seen.document().number() + " has moved on since the plan was made.",
                        "Look at it as it stands now; it was left as it is.");
            }
            boolean empty = !facts.facts(seen.current().id()).containsKey(fact.name());
            List<String> said = empty
                    ? values.type(actor, seen, Map.of(fact.name(), wish.words()), Map.of(), "filled in for many")
                    : List.of();
            changed.note(actor, seen, said, "the kind requires it");
            became.put(item, new Run.Row(item, said.isEmpty() ? "unchanged" : "filled", seen.version()));
        }
        return due.stream().map(d -> became.get(d.item())).toList();
    }
}
