package mintshelf.app.use.swap;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.effect.References;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.LinkStore.Shown;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.SheetNames;
import mintshelf.core.reference.WrittenAnew;
import mintshelf.core.reuse.Swaps;
import mintshelf.core.reuse.Swaps.Fate;
import mintshelf.core.reuse.Swaps.Pair;
import mintshelf.core.reuse.Swaps.Verdict;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Component;

/** What documents that go out stand in, and what becomes of each; in a number of statements that does not grow with them. */
@Component
public class Parents {
    /** Drawings of parents that are looked into for the numbers that go out. */
    static final int LOOKED_INTO = 60;

    private final Sight sight;
    private final RewriteReferences rewrite;
    private final References references;
    private final LinkStore links;
    private final Sheets sheets;
    private final ReadingRoom room;
    private final ChangeControl control;
    /** What drawings say of numbers: contents never change. */
    private final Map<String, Boolean> says = Recent.most(2_000);

    public Parents(
            Sight sight,
            RewriteReferences rewrite,
            References references,
            LinkStore links,
            Sheets sheets,
            ReadingRoom room,
            ChangeControl control) {
        this.sight = sight;
        this.rewrite = rewrite;
        this.references = references;
        this.links = links;
        this.sheets = sheets;
        this.room = room;
        this.control = control;
    }

    /** The documents of pairs, as the actor sees them. */
    public record Both(List<Pair> pairs, Map<Long, Seen> seen) {
        public Seen of(long id) {
            return Optional.ofNullable(seen.get(id)).orElseThrow(NotThere::new);
        }

        public String number(long id) {
            return of(id).document().number();
        }

        Set<Long> olds() {
            Set<Long> olds = new LinkedHashSet<>();
            pairs.forEach(p -> olds.add(p.old()));
            return olds;
        }

        Map<Long, Long> comesIn() {
            Map<Long, Long> now = new LinkedHashMap<>();
            pairs.forEach(p -> now.put(p.old(), p.now()));
            return now;
        }
    }

    /**
     * A document that is to follow.
     *
     * @param paths how what comes in is to be written, by the paths that stand in its file; none of a sheet that only says numbers
     * @param olds which of those that go out it names
     * @param sheetOf the parent that it shows, for a drawing that says their numbers
     */
    public record Parent(
            Seen seen, Verdict verdict, Map<String, String> paths, Set<Long> olds, Optional<Seen> sheetOf) {
        public Fate fate() {
            return verdict.fate();
        }

        /** What a person may choose for it, what it is by itself first. */
        public List<Choice> choices() {
            List<Choice> all = new ArrayList<>();
            if (fate().isWritten()) all.add(Choice.FOLLOWS);
            if (fate() == Fate.HELD) all.add(Choice.ASK);
            boolean may = fate() != Fate.STAYS
                    && verdict.refusal()
                            .filter(r -> r.code().startsWith("access.")
                                    || seen.document().dropped())
                            .isEmpty();
            if (fate() == Fate.CANNOT) all.add(Choice.OUT);
            if (may) all.add(Choice.JOB);
            if (fate() != Fate.CANNOT && fate() != Fate.STAYS) all.add(Choice.OUT);
            return all;
        }
    }

    /** What a person chose for a parent. */
    public enum Choice {
        FOLLOWS("go", "follows"),
        ASK("ask", "ask who holds it"),
        JOB("job", "leave it as a job"),
        OUT("out", "leave it out");

        private final String code;
        private final String words;

        Choice(String code, String words) {
            this.code = code;
            this.words = words;
        }

        public String code() {
            return code;
        }

        public String words() {
            return words;
        }
    }

    /**
     * @param hidden how many more there are that the actor does not see, or not whole
     * @param notLookedInto drawings of parents of which it is not known what they say
     */
    public record All(List<Parent> parents, int hidden, int notLookedInto) {
        Optional<Parent> of(long id) {
            return parents.stream().filter(p -> p.seen().spine().id() == id).findFirst();
        }
    }

    /** The documents of pairs; refused where they are none that can be swapped, and as what is not there where the actor does not see them whole. */
    public Both both(Actor actor, List<Pair> pairs) {
        Set<Long> ids = new LinkedHashSet<>();
        pairs.forEach(p -> {
            ids.add(p.old());
            ids.add(p.now());
        });
        Both both = new Both(pairs, sight.of(actor, ids));
        for (long id : ids) if (!both.of(id).all() || both.of(id).spine().isWritten()) throw new NotThere();
        Swaps.refusal(pairs, both::number).ifPresent(r -> {
            throw new Refused(r);
        });
        for (Pair pair : pairs)
            Swaps.comesIn(both.of(pair.now()).document()).ifPresent(r -> {
                throw new Refused(r);
            });
        return both;
    }

    /** Until the transaction ends, nothing comes to stand in anything: no ring is closed unseen. */
    void closeGate() {
        references.closeGate();
    }

    /** What they stand in by its latest version, with what becomes of it. */
    public All of(Actor actor, Both both) {
        Map<Long, Map<String, Long>> named = new LinkedHashMap<>();
        Map<Long, Seen> seen = new LinkedHashMap<>();
        // Asked of the database: the mirror of the structure is not there within a transaction.
        Set<Long> above = new HashSet<>();
        references.users(both.olds()).values().forEach(above::addAll);
        for (RewriteReferences.Naming n : rewrite.naming(actor, both.olds(), above)) {
            long parent = n.parent().spine().id();
            seen.put(parent, n.parent());
            named.computeIfAbsent(parent, p -> new LinkedHashMap<>()).put(n.path(), n.component());
        }
        StructureGraph graph = references.below(new HashSet<>(both.comesIn().values()));
        int hidden = (int) above.stream().filter(p -> !seen.containsKey(p)).count();
        Set<Long> lie = new HashSet<>(seen.keySet());
        lie.addAll(both.seen().keySet());
        Map<Long, Filed> filed = references.filed(lie);
        ChangeControl.Now now = control.now();
        List<Parent> parents = new ArrayList<>();
        named.forEach((id, paths) -> parents.add(parent(actor, seen.get(id), paths, both, filed, graph, now)));
        parents.sort((a, b) ->
                a.seen().document().number().compareTo(b.seen().document().number()));
        int left = drawings(actor, both, parents, now);
        return new All(parents, hidden, left);
    }

    private Parent parent(
            Actor actor,
            Seen parent,
            Map<String, Long> named,
            Both both,
            Map<Long, Filed> filed,
            StructureGraph graph,
            ChangeControl.Now now) {
        long id = parent.spine().id();
        Map<Long, Long> comesIn = both.comesIn();
        Map<String, String> paths = new LinkedHashMap<>();
        Optional<Refusal> form = RewriteReferences.form(parent);
        for (Map.Entry<String, Long> one : named.entrySet()) {
            long in = comesIn.getOrDefault(one.getValue(), 0L);
            if (Swaps.wouldContainItself(id, in, graph))
                return new Parent(
                        parent,
                        new Verdict(Fate.STAYS, Optional.of(ring(parent, both.of(in)))),
                        Map.of(),
                        Set.copyOf(named.values()),
                        Optional.empty());
            Filed lies = Optional.ofNullable(filed.get(in)).orElseThrow(NotThere::new);
            Optional<String> path = WrittenAnew.path(
                    one.getKey(), Optional.ofNullable(filed.get(id)).orElseThrow(NotThere::new), lies);
            path.ifPresent(p -> paths.put(one.getKey(), p));
            if (path.isEmpty() && form.isEmpty()) form = Optional.of(sameName(one.getKey(), both.of(in)));
        }
        return new Parent(
                parent, verdict(actor, parent, form, now), paths, Set.copyOf(named.values()), Optional.empty());
    }

    private static Verdict verdict(Actor actor, Seen seen, Optional<Refusal> form, ChangeControl.Now now) {
        return Swaps.of(seen.document(), actor.access(), form, d -> StartRevision.refusal(actor, seen, now));
    }

    private static Refusal ring(Seen parent, Seen in) {
        return Refusal.of(
                "swap.ring",
                parent.document().number() + " stands in " + in.document().number() + " itself.",
                "It goes on with what it has.");
    }

    private static Refusal sameName(String path, Seen in) {
        return Refusal.of(
                "swap.name",
                "The file of " + in.document().number() + " has the name that stands there already: " + path + ".",
                "Rename one of the two, or exchange it in the program that wrote the file.");
    }

    /** Drawings of parents that say the numbers that go out follow with them; gives how many were not looked into. */
    private int drawings(Actor actor, Both both, List<Parent> parents, ChangeControl.Now now) {
        Map<Long, Parent> bodies = new HashMap<>();
        parents.stream()
                .filter(p -> p.fate().isWritten())
                .forEach(p -> bodies.put(p.seen().spine().id(), p));
        if (bodies.isEmpty()) return 0;
        Map<Long, Parent> shows = new LinkedHashMap<>();
        for (Shown shown : links.shown(bodies.keySet()))
            if (bodies.containsKey(shown.target()) && !bodies.containsKey(shown.item()))
                shows.putIfAbsent(shown.item(), bodies.get(shown.target()));
        parents.forEach(p -> shows.remove(p.seen().spine().id()));
        Set<String> numbers = new HashSet<>();
        both.olds().forEach(o -> numbers.add(both.number(o)));
        int left = 0;
        int looked = 0;
        for (Map.Entry<Long, Seen> one : sight.of(actor, shows.keySet()).entrySet()) {
            Seen seen = one.getValue();
            Parent of = shows.get(one.getKey());
            if (of == null || !seen.all() || seen.spine().content().kind() != ContentKind.DXF) continue;
            if (++looked > LOOKED_INTO) {
                left++;
                continue;
            }
            if (!says(seen, numbers)) continue;
            parents.add(new Parent(
                    seen,
                    verdict(actor, seen, RewriteReferences.form(seen), now),
                    Map.of(),
                    of.olds(),
                    Optional.of(of.seen())));
        }
        return left;
    }

    private boolean says(Seen seen, Set<String> numbers) {
        String key = seen.spine().content().hash().hex() + new TreeSet<>(numbers);
        Boolean known = says.get(key);
        if (known != null) return known;
        boolean found = room.apart(() -> sheets.opened(seen.spine().content())
                .map(drawing -> SheetNames.says(drawing, numbers))
                .orElse(false));
        says.put(key, found);
        return found;
    }

    /** Where some documents stand when a swap is done: by latest versions that are not rewritten, and by versions in force; seen or not. */
    Map<Long, Set<Long>> stillUsed(Collection<Long> olds, Set<Long> rewritten) {
        Map<Long, Set<Long>> still = new HashMap<>();
        references
                .users(olds)
                .forEach((old, users) -> users.stream()
                        .filter(u -> !rewritten.contains(u))
                        .forEach(u -> still.computeIfAbsent(old, o -> new LinkedHashSet<>())
                                .add(u)));
        references
                .usersInForce(olds)
                .forEach((old, users) ->
                        still.computeIfAbsent(old, o -> new LinkedHashSet<>()).addAll(users));
        return still;
    }
}
