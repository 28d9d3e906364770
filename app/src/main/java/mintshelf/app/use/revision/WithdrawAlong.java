package mintshelf.app.use.revision;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;
import mintshelf.core.release.OutOfUse;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Component;

/** What may be withdrawn together with a document, because nothing else needs it: components and sheets of its own. */
@Component
public class WithdrawAlong {
    /** Documents in one act. */
    public static final int MOST = 500;

    private final Sight sight;
    private final Bundles bundles;
    private final ReferenceStore references;
    private final LinkStore links;

    public WithdrawAlong(Sight sight, Bundles bundles, ReferenceStore references, LinkStore links) {
        this.sight = sight;
        this.bundles = bundles;
        this.references = references;
        this.links = links;
    }

    /**
     * The plan beside a withdrawal.
     *
     * @param goes what can go along
     * @param stays what stood in it and stays, with why
     * @param hidden how many more stand in it that the person does not see
     */
    public record Falls(List<Seen> goes, List<Stays> stays, int hidden) {
        public boolean isEmpty() {
            return goes.isEmpty() && stays.isEmpty();
        }
    }

    public record Stays(Seen seen, String why) {}

    /** What would go with a document by a move of that code, and what would not. */
    public Falls of(Actor actor, Seen top, String move) {
        long id = top.spine().id();
        Around around = around(id);
        Map<Long, Seen> seen = sight.of(actor, around.all());
        OutOfUse found = OutOfUse.of(
                List.of(id),
                around::below,
                around::needs,
                n -> Optional.ofNullable(seen.get(n))
                        .filter(WithdrawAlong::isInForce)
                        .isPresent(),
                n -> Optional.ofNullable(seen.get(n))
                        .filter(WithdrawAlong::isOver)
                        .isEmpty());
        List<Seen> asked = found.items().stream().limit(MOST).map(seen::get).toList();
        List<Seen> goes = new ArrayList<>();
        List<Stays> stays = new ArrayList<>();
        for (Plan.Row<Bundles.Going> row :
                bundles.plan(actor, asked, Way.named(move), By.HAND).rows()) {
            if (row.refusals().isEmpty()) goes.add(row.of().seen());
            else stays.add(new Stays(row.of().seen(), row.refusals().get(0).reason()));
        }
        found.stays().forEach((item, by) -> stays.add(new Stays(seen.get(item), why(seen.get(by)))));
        int hidden =
                (int) around.bodies().stream().filter(c -> !seen.containsKey(c)).count();
        return new Falls(goes, stays, hidden);
    }

    private static String why(Seen by) {
        return by == null
                ? "another document needs it."
                : by.document().number() + " needs it, “" + by.current().stage().name() + "”.";
    }

    /** Why those named must not go along: one never belonged to this, or something that stays needs it. */
    Optional<Refusal> refusal(Actor actor, Seen top, String move, Collection<Long> named) {
        // Nobody makes a document stand in another one while this is decided.
        references.closeGate();
        Set<Long> may = new HashSet<>();
        of(actor, top, move).goes().forEach(s -> may.add(s.spine().id()));
        Set<Long> out = new HashSet<>(named);
        out.add(top.spine().id());
        Around around = around(top.spine().id());
        Map<Long, Seen> seen = sight.of(actor, around.all());
        for (long item : named) {
            Optional<Long> needed = around.needs(item).stream()
                    .filter(n -> !out.contains(n))
                    .filter(n -> Optional.ofNullable(seen.get(n))
                            .filter(WithdrawAlong::isOver)
                            .isEmpty())
                    .findFirst();
            if (may.contains(item) && needed.isEmpty()) continue;
            String number = sight.of(actor, item).document().number();
            return Optional.of(Refusal.of(
                    "withdraw.needed",
                    number + " cannot go along: "
                            + needed.map(n -> why(seen.get(n))).orElse("it no longer belongs to this."),
                    "Take along what needs it too, or leave it out; nothing was changed."));
        }
        return Optional.empty();
    }

    private static boolean isInForce(Seen seen) {
        return seen.all()
                && !seen.document().dropped()
                && !seen.spine().isChangePaper()
                && seen.current().stage().stageClass() == StageClass.RELEASED;
    }

    private static boolean isOver(Seen seen) {
        return seen.document().dropped() || seen.current().stage().stageClass() == StageClass.WITHDRAWN;
    }

    /** What lies below a document, and what needs that: in its latest version, or in the one that is in force. */
    private Around around(long id) {
        Map<Long, Set<Long>> below = new HashMap<>();
        Map<Long, Set<Long>> needs = new HashMap<>();
        Set<Long> bodies = new LinkedHashSet<>(List.of(id));
        for (Use use : references.usesBelow(List.of(id))) {
            put(below, use.parent(), use.component());
            bodies.add(use.component());
        }
        for (Use use : references.headUsers(bodies)) put(needs, use.component(), use.parent());
        for (Use use : references.releasedUses(bodies)) put(needs, use.component(), use.parent());
        Set<Long> sheets = new LinkedHashSet<>();
        for (LinkStore.Shown link : links.shown(bodies)) {
            if (bodies.contains(link.target())) sheets.add(link.item());
        }
        // A sheet may show more than what goes.
        for (LinkStore.Shown link : links.shown(sheets)) {
            if (!sheets.contains(link.item())) continue;
            put(below, link.target(), link.item());
            put(needs, link.item(), link.target());
        }
        return new Around(bodies, below, needs);
    }

    private static void put(Map<Long, Set<Long>> map, long key, long value) {
        if (key != value) map.computeIfAbsent(key, k -> new LinkedHashSet<>()).add(value);
    }

    private record Around(Set<Long> bodies, Map<Long, Set<Long>> down, Map<Long, Set<Long>> up) {
        Set<Long> all() {
            Set<Long> all = new HashSet<>(bodies);
            down.values().forEach(all::addAll);
            up.forEach((item, needs) -> {
                all.add(item);
                all.addAll(needs);
            });
            return all;
        }

        Set<Long> below(long id) {
            return down.getOrDefault(id, Set.of());
        }

        Set<Long> needs(long id) {
            return up.getOrDefault(id, Set.of());
        }
    }
}
