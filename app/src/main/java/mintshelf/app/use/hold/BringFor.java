package mintshelf.app.use.hold;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.store.structure.FiledStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.FileName;
import mintshelf.core.hold.AlongRules;
import mintshelf.core.hold.AlongRules.Fate;
import mintshelf.core.hold.AlongRules.Verdict;
import mintshelf.core.reference.Resolution;
import mintshelf.core.reference.Resolution.Filed;
import org.springframework.stereotype.Service;

/** Brings documents to the desk for a parent that somebody holds: where its file looks for them, as copies or checked out with it. */
@Service
public class BringFor {
    /** Parents that are offered. */
    private static final int OFFERED = 30;

    private final Sight sight;
    private final ListStore lists;
    private final TakeAlong along;
    private final FiledStore filed;
    private final ReferenceStore references;
    private final CheckOut checkOut;
    private final Acts acts;
    private final RunStore runs;
    private final Clock clock;

    public BringFor(
            Sight sight,
            ListStore lists,
            TakeAlong along,
            FiledStore filed,
            ReferenceStore references,
            CheckOut checkOut,
            Acts acts,
            RunStore runs,
            Clock clock) {
        this.sight = sight;
        this.lists = lists;
        this.along = along;
        this.filed = filed;
        this.references = references;
        this.checkOut = checkOut;
        this.acts = acts;
        this.runs = runs;
        this.clock = clock;
    }

    /**
     * A row of the plan.
     *
     * @param from where its file lies, as the parent's file names it
     * @param looks what the parent's file says now, where that is another name than the file has
     */
    public record Row(Seen seen, Verdict verdict, String from, Optional<String> looks) {
        public boolean comes() {
            return verdict.proposed() != Fate.STAY;
        }
    }

    /**
     * What would be brought.
     *
     * @param held what the actor holds and could be the parent, the last first; none where nothing is held
     * @param parent for which it is brought
     */
    public record Plan(List<Seen> held, Optional<Seen> parent, List<Row> rows) {
        public long coming() {
            return rows.stream().filter(Row::comes).count();
        }
    }

    /**
     * What bringing documents for a parent would do; nothing is changed.
     *
     * @param parent one that the actor holds; without one the last that was checked out
     */
    public Plan plan(Actor actor, Collection<Long> items, Optional<Long> parent) {
        if (items.isEmpty() || items.size() > CheckOut.MOST) throw new NotThere();
        Map<Long, Seen> asked = new LinkedHashMap<>(sight.of(actor, items));
        if (asked.isEmpty()) throw new NotThere();
        asked.values().removeIf(s -> s.spine().isWritten());
        if (asked.isEmpty()) {
            throw Refused.because(
                    "change.paper", "What has no file comes to no desk.", "Pick drawings, models or papers.");
        }
        List<Long> mine = lists.heldBy(actor.person(), CheckOut.MOST, true);
        Map<Long, Seen> seen = sight.of(actor, mine);
        List<Seen> held = mine.stream()
                .filter(id -> !asked.containsKey(id))
                .flatMap(id -> Optional.ofNullable(seen.get(id)).stream())
                .filter(s -> !s.spine().isWritten())
                .toList();
        Optional<Seen> chosen = parent.isEmpty()
                ? held.stream().findFirst()
                : held.stream().filter(s -> s.spine().id() == parent.get()).findFirst();
        if (parent.isPresent() && chosen.isEmpty()) throw new NotThere();
        List<Row> rows = chosen.map(p -> rows(actor, asked.keySet(), p)).orElse(List.of());
        return new Plan(offered(held, chosen), chosen, rows);
    }

    private static List<Seen> offered(List<Seen> held, Optional<Seen> chosen) {
        List<Seen> offered = new ArrayList<>(held.subList(0, Math.min(held.size(), OFFERED)));
        chosen.filter(c -> !offered.contains(c)).ifPresent(offered::add);
        return offered;
    }

    private List<Row> rows(Actor actor, Collection<Long> items, Seen parent) {
        long top = parent.spine().id();
        List<TakeAlong.Along> all = along.gather(actor, items, EnumSet.of(With.ALL_LEVELS));
        Set<Long> ids = all.stream().map(a -> a.seen().spine().id()).collect(Collectors.toCollection(HashSet::new));
        ids.add(top);
        Map<Long, Filed> places = filed.filed(ids);
        Filed at = Objects.requireNonNull(places.get(top));
        Map<Long, String> named = named(parent, all);
        List<Row> rows = new ArrayList<>();
        for (TakeAlong.Along one : all) {
            long id = one.seen().spine().id();
            if (id == top) continue;
            Filed there = Objects.requireNonNull(places.get(id));
            Optional<String> looks = Optional.ofNullable(named.get(id))
                    .map(FileName::of)
                    .filter(n -> !n.key().equals(FileName.of(there.fileName()).key()))
                    .map(FileName::name);
            rows.add(new Row(
                    one.seen(),
                    verdict(actor, one.seen(), parent, items.contains(id) && along.standsIn(top, id)),
                    Resolution.relative(at.folders(), there.folders(), there.fileName()),
                    looks));
        }
        return rows;
    }

    /** What the parent's file calls the documents that it refers to. */
    private Map<Long, String> named(Seen parent, List<TakeAlong.Along> all) {
        Map<Long, String> named = new HashMap<>();
        references
                .naming(
                        List.of(parent.document().head().version()),
                        all.stream().map(a -> a.seen().spine().id()).toList())
                .forEach(n -> named.put(n.component(), n.path()));
        return named;
    }

    private static Verdict verdict(Actor actor, Seen seen, Seen parent, boolean around) {
        if (seen.all() || around) {
            return AlongRules.brought(
                    seen.document(), actor.access(), parent.document().number(), around);
        }
        return new Verdict(
                List.of(Fate.COPY, Fate.STAY),
                Optional.of(Refusal.of(
                        "access.missing", "You see released versions of it only.", "It comes as a copy of the last.")));
    }

    private static boolean isMine(Actor actor, Seen seen) {
        return seen.document()
                .holder()
                .filter(h -> h.person() == actor.person())
                .isPresent();
    }

    /**
     * Brings them: what is to be held is checked out, all of it or nothing; the others come as copies.
     *
     * @return the address of what became of it, from where it goes to the desk
     */
    public String bring(Actor actor, long parent, Map<Long, Fate> chosen, String key, String desk) {
        Plan plan = plan(actor, chosen.keySet(), Optional.of(parent));
        Map<Long, Row> rows = new LinkedHashMap<>();
        plan.rows().forEach(r -> rows.put(r.seen().spine().id(), r));
        List<Long> hold = new ArrayList<>();
        List<Long> copies = new ArrayList<>();
        chosen.forEach((id, fate) -> {
            Row row = rows.get(id);
            if (row == null || fate == Fate.STAY) return;
            // Sent again, what was checked out the first time is held already: the act knows its key.
            boolean again = fate == Fate.HOLD && isMine(actor, row.seen());
            if (!again && !row.verdict().fates().contains(fate)) {
                Refusal why = row.verdict().why().orElseGet(() -> Refusal.of("bring.changed", "The plan changed.", ""));
                throw Refused.because(
                        why.code(),
                        row.seen().document().number() + ": " + why.reason(),
                        "Nothing was brought; look at the plan again.");
            }
            (fate == Fate.HOLD ? hold : copies).add(id);
        });
        String number = plan.parent().orElseThrow().document().number();
        if (!hold.isEmpty()) return checkOut.take(actor, hold, copies, key, desk, "for " + number);
        if (copies.isEmpty()) {
            throw Refused.because("bring.none", "Nothing is chosen.", "Let a row come as a copy, or check it out.");
        }
        return acts.once(actor, key, () -> {
            List<Run.Row> brought = sight.of(actor, copies).values().stream()
                    .map(s -> new Run.Row(s.spine().id(), "copy", s.version()))
                    .toList();
            String says = Numbers.count(brought.size(), "copy", "copies") + " for " + number;
            return "/runs/" + runs.done(actor.person(), key, Run.What.CHECK_OUT, says, brought, clock.instant());
        });
    }

    /** What somebody chose for a row; nothing for what is none of the choices. */
    public static Optional<Fate> fate(String said) {
        for (Fate fate : Fate.values()) if (fate.name().equals(said)) return Optional.of(fate);
        return Optional.empty();
    }
}
