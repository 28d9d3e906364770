package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** Lets assemblies take up newer components: a version with the same content that captures them. No file passes a desk. */
@Service
public class TakeUp implements SetAct {
    private final Sight sight;
    private final HoldStore holds;
    private final References references;
    private final NewVersions versions;
    private final StructureMirror mirror;
    private final Recorder recorder;

    public TakeUp(
            Sight sight,
            HoldStore holds,
            References references,
            NewVersions versions,
            StructureMirror mirror,
            Recorder recorder) {
        this.sight = sight;
        this.holds = holds;
        this.references = references;
        this.versions = versions;
        this.mirror = mirror;
        this.recorder = recorder;
    }

    @Override
    public Run.What what() {
        return Run.What.TAKE_UP;
    }

    @Override
    public String says(List<PlanLine> going, Wish wish) {
        return "Take up newer components in " + Numbers.count(going.size(), "document", "documents");
    }

    /** How many documents stand above these and could go along. */
    public int above(Actor actor, Collection<Long> items) {
        return (int) sight.of(actor, above(mirror.now().graph(), items)).values().stream()
                .filter(Seen::all)
                .count();
    }

    private static Set<Long> above(StructureGraph graph, Collection<Long> items) {
        Set<Long> above = new HashSet<>();
        for (long id : graph.whereUsed(ids(items))) above.add(id);
        above.removeAll(items);
        return above;
    }

    private static long[] ids(Collection<Long> items) {
        return items.stream().mapToLong(i -> i).toArray();
    }

    /** From the lowest assembly up; one that gets a version in the same act counts as newer where it stands. */
    @Override
    public Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish) {
        StructureGraph graph = mirror.now().graph();
        Set<Long> taking = new LinkedHashSet<>(items);
        if (wish.above()) taking.addAll(above(graph, items));
        Map<Long, Seen> seen = sight.of(actor, taking);
        Map<Long, List<Reference>> before = references.of(
                seen.values().stream().map(s -> s.document().head().version()).toList());
        Map<Long, List<Reference>> now = references.takenUp(before);
        Set<Long> order = new LinkedHashSet<>();
        for (long id : graph.upwards(ids(items))) order.add(id);
        order.addAll(items);
        order.retainAll(seen.keySet());
        List<Plan.Row<PlanLine>> rows = new ArrayList<>();
        Set<Long> moving = new HashSet<>();
        for (long id : order) {
            Seen one = seen.get(id);
            if (!one.all()) {
                // What is newer in preparation is not a reader's to know: the row is the same, whatever it is.
                if (items.contains(id)) rows.add(Plan.Row.asked(PlanLine.of(one), List.of(SetAct.notShown(one))));
                continue;
            }
            long head = one.document().head().version();
            int newer = newer(before.getOrDefault(head, List.of()), now.getOrDefault(head, List.of()), moving);
            if (newer == 0 && items.contains(id)) rows.add(Plan.Row.stays(PlanLine.of(one)));
            if (newer == 0) continue;
            List<Refusal> inTheWay = refusal(actor, one).stream().toList();
            if (inTheWay.isEmpty()) moving.add(id);
            String says = "takes up " + Numbers.count(newer, "newer component", "newer components");
            rows.add(Plan.Row.asked(PlanLine.of(one, says), inTheWay));
        }
        return new Plan<>(rows);
    }

    /** How many components are newer now, or will be by this act. */
    private static int newer(List<Reference> before, List<Reference> now, Set<Long> moving) {
        Set<Long> ahead = new HashSet<>();
        for (int i = 0; i < before.size(); i++) {
            Optional<Reference.Component> was = before.get(i).component();
            if (was.isEmpty()) continue;
            long item = was.get().item();
            if (moving.contains(item) || !now.get(i).component().equals(was)) ahead.add(item);
        }
        return ahead.size();
    }

    private static Optional<Refusal> refusal(Actor actor, Seen seen) {
        if (!seen.all()) return Optional.of(SetAct.notShown(seen));
        return HoldRules.checkOut(seen.document(), actor.access())
                .filter(r -> !r.code().equals("hold.mine"));
    }

    /** The lowest assemblies first, as they come: each takes up what those before it became. */
    @Override
    public List<Run.Row> carryOut(Actor actor, List<Run.Due> due, Wish wish) {
        Map<Long, Seen> byId = new HashMap<>();
        sight.locked(actor, due.stream().map(Run.Due::item).toList())
                .forEach(s -> byId.put(s.spine().id(), s));
        return due.stream().map(d -> takeOne(actor, byId.get(d.item()), d)).toList();
    }

    private Run.Row takeOne(Actor actor, Seen seen, Run.Due due) {
        Document document = seen.document();
        refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        Sight.expectVersion(seen, Integer.parseInt(due.expected()));
        long head = document.head().version();
        List<Reference> before = references.of(head);
        List<Reference> now = references.takenUp(before);
        int moved = References.moved(before, now);
        if (moved == 0)
            return new Run.Row(document.id(), "unchanged", document.head().number());
        String says = References.tookUp(moved);
        Added added = versions.add(
                actor,
                document,
                new NewVersions.Made(
                        seen.spine().content(),
                        now,
                        says,
                        VersionRow.MadeBy.CHECKED_IN,
                        Optional.of(head),
                        Optional.empty(),
                        ""));
        document.holder().ifPresent(h -> holds.rebase(h.hold(), added.version()));
        recorder.note(
                actor,
                document.id(),
                "version.added",
                added.number(),
                "made version " + added.number() + ", which " + says,
                "");
        return new Run.Row(document.id(), "version", added.number());
    }
}
