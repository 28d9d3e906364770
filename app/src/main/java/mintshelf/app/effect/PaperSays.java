package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.change.DispositionStore;
import mintshelf.app.store.change.GoalStore;
import mintshelf.app.store.change.LineFactStore;
import mintshelf.app.store.change.LineVariantStore;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.change.Disposition;
import mintshelf.core.change.Goal;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Revision;
import mintshelf.core.fact.FactDefinition;
import org.springframework.stereotype.Component;

/** What a paper of change says beside its lines, as rows of it: what becomes of the old ones, which facts change, goals and what shows them. */
@Component
public class PaperSays {
    private final DispositionStore dispositions;
    private final LineFactStore lineFacts;
    private final LineVariantStore lineVariants;
    private final GoalStore shown;
    private final RequestStore requests;
    private final FactStore facts;
    private final VersionStore versions;
    private final SpineStore spines;
    private final HouseStore house;

    PaperSays(
            DispositionStore dispositions,
            LineFactStore lineFacts,
            LineVariantStore lineVariants,
            GoalStore shown,
            RequestStore requests,
            FactStore facts,
            VersionStore versions,
            SpineStore spines,
            HouseStore house) {
        this.dispositions = dispositions;
        this.lineFacts = lineFacts;
        this.lineVariants = lineVariants;
        this.shown = shown;
        this.requests = requests;
        this.facts = facts;
        this.versions = versions;
        this.spines = spines;
        this.house = house;
    }

    List<Map<String, Object>> old(long paper, Map<Long, Spine> items) {
        List<Map<String, Object>> rows = new ArrayList<>();
        for (Disposition one : dispositions.of(paper)) {
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("document", items.get(one.item()).document().number());
            row.put("place", one.place().words());
            row.put("quantity", one.howMany());
            row.put("what", one.what().map(Disposition.What::words).orElse(""));
            row.put("cost", one.cost().map(Disposition.Money::words).orElse(""));
            row.put("note", one.note());
            rows.add(row);
        }
        return rows;
    }

    /** The variants that lines are about, by document. */
    public Map<Long, List<String>> variants(long paper) {
        return lineVariants.of(paper);
    }

    /** The facts that lines change which change nothing else: what each is in force, and what it will be. */
    public List<Map<String, Object>> facts(long paper, List<PaperLine> lines, Map<Long, Spine> items) {
        Map<Long, Map<Long, String>> wanted = lineFacts.wanted(paper);
        List<Map<String, Object>> rows = new ArrayList<>();
        if (wanted.isEmpty()) return rows;
        for (PaperLine line : lines) {
            if (!line.factsOnly()) continue;
            Map<Long, String> will = wanted.getOrDefault(line.item(), Map.of());
            Map<String, String> now = items.get(line.item())
                    .document()
                    .released()
                    .map(Revision::id)
                    .map(facts::facts)
                    .orElse(Map.of());
            for (FactDefinition fact : house.facts()) {
                if (!will.containsKey(fact.id())) continue;
                Map<String, Object> row = new LinkedHashMap<>();
                row.put("document", items.get(line.item()).document().number());
                row.put("fact", fact.label());
                row.put("from", now.getOrDefault(fact.name(), ""));
                row.put("to", will.get(fact.id()));
                rows.add(row);
            }
        }
        return rows;
    }

    /** The goals of a request; of an order those of its requests, with what shows them. */
    List<Map<String, Object>> goals(long paper, boolean order) {
        List<Goal> goals = new ArrayList<>();
        for (long request : order ? requests.requestsOf(paper) : List.of(paper)) {
            goals.addAll(requests.goals(request, house.facts()));
        }
        List<Map<String, Object>> rows = new ArrayList<>();
        if (goals.isEmpty()) return rows;
        Map<Long, GoalStore.Shown> by =
                order ? shown.shown(goals.stream().map(Goal::id).toList()) : Map.of();
        Map<Long, Spine> items = spines.spines(goals.stream().map(Goal::item).toList());
        for (Goal goal : goals) {
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("document", items.get(goal.item()).document().number());
            row.put("goal", goal.words());
            Optional.ofNullable(by.get(goal.id())).ifPresent(s -> row.put("shown", shown(s)));
            rows.add(row);
        }
        return rows;
    }

    /** By its hash: what shows a goal cannot be another thing later. */
    private Map<String, Object> shown(GoalStore.Shown one) {
        Map<Long, VersionRow> rows = versions.versionsById(
                one.against().map(o -> List.of(one.version(), o)).orElse(List.of(one.version())));
        VersionRow version = rows.get(one.version());
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("document", spines.spine(one.item()).orElseThrow().document().number());
        row.put("version", version.number());
        row.put("sha256", version.content().hash().hex());
        one.against().ifPresent(o -> row.put("against", rows.get(o).number()));
        row.put("note", one.note());
        return row;
    }
}
