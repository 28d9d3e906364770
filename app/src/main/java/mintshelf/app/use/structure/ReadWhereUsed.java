package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.access.Right;
import mintshelf.core.document.VersionName;
import mintshelf.core.structure.GraphLayout;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Service;

/** What a document stands in: directly, up to the top, ever; and the papers that speak of it. */
@Service
public class ReadWhereUsed {
    /** Documents above that are listed; the count tells of the others. */
    public static final int MOST = 400;
    /** Documents that one picture shows. */
    public static final int MOST_DRAWN = 60;

    private final Sight sight;
    private final ReferenceStore references;
    private final LinkStore links;
    private final StructureMirror mirror;

    public ReadWhereUsed(Sight sight, ReferenceStore references, LinkStore links, StructureMirror mirror) {
        this.sight = sight;
        this.references = references;
        this.links = links;
        this.mirror = mirror;
    }

    /**
     * A document that the asked one stands in.
     *
     * @param steps how many levels above, along the shortest way
     * @param quantity how many of the asked one it needs over all paths; empty where a ring makes that endless
     * @param captured number of the version that it was saved with; empty further up
     * @param newer how many versions newer the latest one is than that
     */
    public record Above(Seen seen, int steps, Optional<Long> quantity, Optional<Integer> captured, int newer) {}

    /** A document that a former version referred to the asked one from. */
    public record Former(Seen seen, List<VersionName> versions) {}

    /** A box of the picture. */
    public record Box(Seen seen, int row, int place, int inRow) {}

    /** A line of the picture, from a component up to what it stands in. */
    public record UsedEdge(long from, long to, int quantity) {}

    /** A typed link that leads to the asked document, or from it. */
    public record Linked(LinkStore.Link link, Seen other, boolean outward) {}

    /**
     * Where a document is used.
     *
     * @param hidden how many documents above are not for this person's eyes
     * @param cut how many more there are than are listed
     * @param boxes empty where there is nothing to draw, or too much
     */
    public record Used(
            Seen of,
            List<Above> above,
            int hidden,
            int cut,
            List<Former> former,
            List<Linked> links,
            List<Box> boxes,
            List<UsedEdge> lines) {
        /** Whether what it was derived from has moved on since, for who sees work in preparation of both. */
        public boolean isDerived() {
            return of.all()
                    && links.stream()
                            .anyMatch(l -> l.outward()
                                    && l.link().kind() == LinkStore.Kind.DERIVED_FROM
                                    && l.link().isBehind()
                                    && l.other().all());
        }

        /** The model that a drawing shows, where it is linked to one. */
        public Optional<Seen> shows() {
            return links.stream()
                    .filter(l -> l.outward() && l.link().kind() == LinkStore.Kind.SHOWS)
                    .map(Linked::other)
                    .findFirst();
        }
    }

    public Used of(Actor actor, long item, boolean everVersion) {
        Seen of = sight.of(actor, item);
        StructureGraph graph =
                actor.access().mayEverywhere(Right.SEE_ALL) ? mirror.now().graph() : known(actor, item);
        Map<Long, Integer> steps = steps(graph, item);
        List<Long> ids = steps.entrySet().stream()
                .sorted(Map.Entry.<Long, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .limit(MOST)
                .toList();
        Map<Long, Seen> seen = sight.of(actor, ids);
        List<Integer> made = of.all() ? references.made(List.of(item)).getOrDefault(item, List.of()) : List.of();
        Map<Long, Long> needed = graph.neededAbove(item);
        List<Above> above = new ArrayList<>();
        for (long id : ids) {
            if (!seen.containsKey(id)) continue;
            Optional<Integer> captured = graph.usesOf(id).stream()
                    .filter(u -> u.component() == item && of.all())
                    .map(Use::captured)
                    .min(Comparator.naturalOrder());
            Optional<Long> quantity = Optional.ofNullable(needed.get(id));
            int newer = captured.map(c -> (int) made.stream().filter(v -> v > c).count())
                    .orElse(0);
            above.add(new Above(seen.get(id), steps.get(id), quantity, captured, newer));
        }
        above.sort(Comparator.comparingInt(Above::steps)
                .thenComparing(a -> a.seen().document().number()));
        List<Former> former = everVersion ? former(actor, item, steps.keySet()) : List.of();
        List<Long> drawn = new ArrayList<>(List.of(item));
        above.forEach(a -> drawn.add(a.seen().spine().id()));
        boolean draws = drawn.size() > 1 && drawn.size() <= MOST_DRAWN;
        List<UsedEdge> lines = draws ? lines(graph, drawn) : List.of();
        return new Used(
                of,
                above,
                ids.size() - seen.size(),
                steps.size() - ids.size(),
                former,
                linked(actor, item),
                draws ? boxes(drawn, lines, seen, of) : List.of(),
                lines);
    }

    /**
     * Where a document is used as a person knows it who does not see work in preparation everywhere: of documents of which they see
     * released versions only, those count. O(uses above), a few statements a level.
     */
    private StructureGraph known(Actor actor, long item) {
        StructureGraph latest = mirror.now().graph();
        List<Use> uses = new ArrayList<>();
        Set<Long> done = new HashSet<>(List.of(item));
        Set<Long> level = Set.of(item);
        while (!level.isEmpty()) {
            List<Use> released = references.releasedUses(level);
            Set<Long> parents = new HashSet<>();
            for (long id : level) for (long parent : latest.usedIn(id)) parents.add(parent);
            Map<Long, Seen> seen = sight.of(actor, parents);
            Set<Long> next = new HashSet<>();
            for (long parent : parents) {
                if (!seen.containsKey(parent) || !seen.get(parent).all()) continue;
                for (Use use : latest.usesOf(parent)) {
                    if (level.contains(use.component())) uses.add(use);
                }
                next.add(parent);
            }
            for (Use use : released) {
                if (seen.containsKey(use.parent()) && seen.get(use.parent()).all()) continue;
                uses.add(use);
                next.add(use.parent());
            }
            next.removeIf(id -> !done.add(id));
            level = next;
        }
        return StructureGraph.of(uses);
    }

    /** The documents above with the least number of levels, the document itself left out. */
    private static Map<Long, Integer> steps(StructureGraph graph, long item) {
        Map<Long, Integer> steps = new HashMap<>();
        List<Long> level = List.of(item);
        for (int step = 1; !level.isEmpty(); step++) {
            List<Long> next = new ArrayList<>();
            for (long id : level) {
                for (long parent : graph.usedIn(id)) {
                    if (parent == item || steps.putIfAbsent(parent, step) != null) continue;
                    next.add(parent);
                }
            }
            level = next;
        }
        return steps;
    }

    private List<Former> former(Actor actor, long item, Set<Long> now) {
        Map<Long, List<VersionName>> ever = references.everUsedIn(item, 2000);
        ever.keySet().removeIf(i -> now.contains(i));
        List<Former> former = new ArrayList<>();
        sight.of(actor, ever.keySet()).values().stream()
                .filter(Seen::all)
                .forEach(s -> former.add(new Former(s, ever.get(s.spine().id()))));
        return former;
    }

    private List<Linked> linked(Actor actor, long item) {
        List<LinkStore.Link> around = links.around(List.of(item));
        Set<Long> others = new HashSet<>();
        around.forEach(l -> others.add(l.item() == item ? l.target() : l.item()));
        Map<Long, Seen> seen = sight.of(actor, others);
        return around.stream()
                .filter(l -> seen.containsKey(l.item() == item ? l.target() : l.item()))
                .map(l -> new Linked(l, seen.get(l.item() == item ? l.target() : l.item()), l.item() == item))
                .toList();
    }

    private static List<UsedEdge> lines(StructureGraph graph, List<Long> drawn) {
        Set<Long> all = Set.copyOf(drawn);
        Map<String, UsedEdge> lines = new HashMap<>();
        for (long parent : drawn) {
            for (Use u : graph.usesOf(parent)) {
                if (!all.contains(u.component())) continue;
                lines.merge(
                        u.component() + " " + parent,
                        new UsedEdge(u.component(), parent, u.quantity()),
                        (a, b) -> new UsedEdge(a.from(), a.to(), a.quantity() + b.quantity()));
            }
        }
        return lines.values().stream()
                .sorted(Comparator.comparingLong(UsedEdge::from).thenComparingLong(UsedEdge::to))
                .toList();
    }

    private static List<Box> boxes(List<Long> drawn, List<UsedEdge> lines, Map<Long, Seen> seen, Seen of) {
        List<Use> uses = lines.stream()
                .map(l -> new Use(l.to(), l.from(), l.quantity(), 0))
                .toList();
        List<GraphLayout.Spot> spots = GraphLayout.of(drawn, uses);
        Map<Integer, Integer> inRow = new HashMap<>();
        spots.forEach(s -> inRow.merge(s.row(), 1, Integer::sum));
        return spots.stream()
                .map(s -> new Box(
                        s.document() == of.spine().id() ? of : seen.get(s.document()),
                        s.row(),
                        s.place(),
                        inRow.get(s.row())))
                .toList();
    }
}
