package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Service;

/** Writes the names and places that documents have now into the files that name them otherwise: each gets a version. */
@Service
public class WriteNames implements SetAct {
    /** Names that a row of the plan says; the others are counted. */
    private static final int SAID = 3;

    private final Sight sight;
    private final RewriteReferences rewrite;

    public WriteNames(Sight sight, RewriteReferences rewrite) {
        this.sight = sight;
        this.rewrite = rewrite;
    }

    @Override
    public Run.What what() {
        return Run.What.WRITE_NAMES;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Write names of now into " + Numbers.count(going.size(), "file", "files");
    }

    /** Documents whose files name some documents otherwise than these are called now, as far as the actor sees them whole. */
    public Set<Long> namingOtherwise(Actor actor, Collection<Long> items) {
        return rewrite.namingOtherwise(actor, items);
    }

    /** As {@link #namingOtherwise}, of those only into which it can be written now. */
    public List<Long> writable(Actor actor, Collection<Long> items) {
        Set<Long> files = namingOtherwise(actor, items);
        return plan(actor, files, Wish.NONE).going().stream()
                .map(l -> l.seen().spine().id())
                .toList();
    }

    /** How many names in a document's file are not those of now. */
    public int former(Actor actor, long item) {
        return rewrite.former(actor, sight.of(actor, List.of(item)))
                .getOrDefault(item, Map.of())
                .size();
    }

    /** What names a document, as it is written there, and whether another name could be written now; seen before it is renamed. */
    public List<Plan.Row<PlanLine>> naming(Actor actor, long item) {
        Map<Long, Seen> parents = new LinkedHashMap<>();
        Map<Long, List<String>> paths = new HashMap<>();
        for (RewriteReferences.Naming n : rewrite.naming(actor, List.of(item))) {
            long parent = n.parent().spine().id();
            parents.put(parent, n.parent());
            paths.computeIfAbsent(parent, p -> new ArrayList<>()).add(n.path());
        }
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        parents.forEach((id, parent) -> rows.add(Plan.Row.asked(
                PlanLine.of(
                        parent,
                        "names it "
                                + String.join(
                                        ", ", paths.get(id).stream().limit(SAID).toList())),
                RewriteReferences.refusal(actor, parent).stream().toList())));
        return rows;
    }

    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        Map<Long, Seen> seen = sight.of(actor, items);
        Map<Long, Map<String, String>> former = rewrite.former(actor, seen);
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        for (Map.Entry<Long, Seen> one : seen.entrySet()) {
            Seen parent = one.getValue();
            Map<String, String> names = former.getOrDefault(one.getKey(), Map.of());
            if (!parent.all()) rows.add(Plan.Row.asked(PlanLine.of(parent), List.of(SetAct.notShown(parent))));
            else if (names.isEmpty()) rows.add(Plan.Row.stays(PlanLine.of(parent)));
            else
                rows.add(Plan.Row.asked(
                        PlanLine.of(parent, says(names)),
                        RewriteReferences.refusal(actor, parent).stream().toList()));
        }
        return new Plan<>(rows);
    }

    private static String says(Map<String, String> names) {
        List<String> all = new ArrayList<>();
        names.forEach((old, now) -> all.add(old + " → " + now));
        String says = String.join(", ", all.subList(0, Math.min(SAID, all.size())));
        return all.size() > SAID ? says + " and " + (all.size() - SAID) + " more" : says;
    }

    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        String why = Texts.optional("The reason", wish.words(), 500).orElseThrow(Refused::new);
        Map<Long, Seen> all = new HashMap<>();
        sight.locked(actor, due.stream().map(Run.Due::item).toList())
                .forEach(s -> all.put(s.spine().id(), s));
        Map<Long, Map<String, String>> former = rewrite.former(actor, all);
        return due.stream()
                .map(d -> one(actor, all.get(d.item()), d, former.getOrDefault(d.item(), Map.of()), why))
                .toList();
    }

    private Run.Row one(Actor actor, Seen seen, Run.Due due, Map<String, String> names, String why) {
        if (!seen.all()) throw new Refused(SetAct.notShown(seen));
        Sight.expectVersion(seen, Integer.parseInt(due.expected()));
        if (names.isEmpty()) return new Run.Row(seen.spine().id(), "unchanged", seen.version());
        RewriteReferences.refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        // A file that does not let itself be written keeps no other one back.
        return rewrite.write(actor, seen, names, why) instanceof Outcome.Granted<Added> added
                ? new Run.Row(seen.spine().id(), "version", added.value().number())
                : new Run.Row(seen.spine().id(), "unwritten", seen.version());
    }
}
