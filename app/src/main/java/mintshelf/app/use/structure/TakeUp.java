package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.document.DocumentStore.Added;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** Lets assemblies take up newer components: a version with the same content that captures them. No file passes a desk. */
@Service
public class TakeUp {
    /** Documents in one plan. */
    public static final int MOST = 300;

    private final Sight sight;
    private final HoldStore holds;
    private final References references;
    private final NewVersions versions;
    private final StructureMirror mirror;
    private final Acts acts;
    private final Recorder recorder;

    public TakeUp(
            Sight sight,
            HoldStore holds,
            References references,
            NewVersions versions,
            StructureMirror mirror,
            Acts acts,
            Recorder recorder) {
        this.sight = sight;
        this.holds = holds;
        this.references = references;
        this.versions = versions;
        this.mirror = mirror;
        this.acts = acts;
        this.recorder = recorder;
    }

    /**
     * A row of the plan.
     *
     * @param newer how many of its components it would take up, those included that get a version in this act
     */
    public record Row(Seen seen, int newer, Optional<Refusal> refusal) {
        public boolean opens() {
            return refusal.isEmpty();
        }
    }

    /** A plan: rows from the lowest assembly up; {@code above} tells how many more stand above and could go along. */
    public record Plan(List<Row> rows, int above) {}

    /**
     * What would happen.
     *
     * @param all whether what stands above goes along, up to the top
     */
    public Plan plan(Actor actor, Collection<Long> items, boolean all) {
        StructureMirror.Snapshot now = mirror.now();
        StructureGraph graph = now.graph();
        long[] asked = items.stream().mapToLong(i -> i).toArray();
        Set<Long> above = new HashSet<>();
        for (long id : graph.whereUsed(asked)) above.add(id);
        above.removeAll(items);
        Set<Long> taking = new HashSet<>(items);
        if (all) taking.addAll(above);
        if (taking.size() > MOST) {
            throw Refused.because(
                    "take_up.many",
                    Numbers.count(taking.size(), "document", "documents") + " stand above.",
                    "Take up level by level; " + MOST + " go in one act.");
        }
        Map<Long, Seen> seen = sight.of(actor, taking);
        List<Row> rows = new ArrayList<>();
        Set<Long> moving = new HashSet<>();
        for (long id : graph.upwards(asked)) {
            if (!seen.containsKey(id)) continue;
            Seen one = seen.get(id);
            List<Reference> refersTo = references.of(one.document().head().version());
            int together = newer(refersTo, moving);
            if (together == 0) continue;
            Optional<Refusal> refusal = refusal(actor, one);
            if (refusal.isEmpty()) moving.add(id);
            rows.add(new Row(one, together, refusal));
        }
        if (rows.isEmpty() && seen.isEmpty()) throw new NotThere();
        return new Plan(rows, all ? 0 : above.size());
    }

    /** How many components are newer now, or will be by this act. */
    private int newer(List<Reference> refersTo, Set<Long> moving) {
        List<Reference> taken = references.takenUp(refersTo);
        Set<Long> ahead = new HashSet<>();
        for (int i = 0; i < refersTo.size(); i++) {
            Optional<Reference.Component> before = refersTo.get(i).component();
            if (before.isEmpty()) continue;
            long item = before.get().item();
            if (moving.contains(item) || !taken.get(i).component().equals(before)) ahead.add(item);
        }
        return ahead.size();
    }

    private static Optional<Refusal> refusal(Actor actor, Seen seen) {
        if (!seen.all()) {
            return Optional.of(Refusal.of(
                    "access.missing", "You see released versions of it only.", "A data manager can change that."));
        }
        return HoldRules.checkOut(seen.document(), actor.access())
                .filter(r -> !r.code().equals("hold.mine"));
    }

    /** Makes the versions, the lowest assemblies first: all of them, or none with what is in the way. */
    public String take(Actor actor, Collection<Long> items, String key) {
        if (items.isEmpty() || items.size() > MOST) throw new NotThere();
        return acts.once(actor, key, () -> {
            List<Seen> all = sight.locked(actor, items);
            Map<Long, Seen> byId = new HashMap<>();
            all.forEach(s -> byId.put(s.spine().id(), s));
            long[] order = StructureGraph.of(references.usesOf(items))
                    .upwards(items.stream().mapToLong(i -> i).toArray());
            int made = 0;
            for (long id : order) {
                Seen seen = byId.get(id);
                if (seen == null) continue;
                refusal(actor, seen).ifPresent(r -> {
                    throw Refused.because(
                            r.code(), r.reason(), (r.remedy() + " Nothing was changed; leave that row out.").strip());
                });
                if (takeOne(actor, seen)) made++;
            }
            if (made == 0) {
                throw Refused.because("take_up.none", "Nothing of it is out of date any more.", "Nothing was changed.");
            }
            // The topmost one shows what became of those below it.
            return "/documents/" + order[order.length - 1] + "/structure";
        });
    }

    private boolean takeOne(Actor actor, Seen seen) {
        Document document = seen.document();
        long head = document.head().version();
        List<Reference> before = references.of(head);
        List<Reference> now = references.takenUp(before);
        int moved = References.moved(before, now);
        if (moved == 0) return false;
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
        return true;
    }
}
