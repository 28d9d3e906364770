package mintshelf.app.use.design;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.LinkStore.Belongs;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.Aspect;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Component;

/** The structure of a design by its numbers: each thing once, with its drawings and papers; a few statements a level. */
@Component
public class DesignTree {
    /** Documents of one design. */
    public static final int MOST = 5_000;

    private static final int DEEPEST = 200;

    private final Sight sight;
    private final References references;
    private final LinkStore links;
    private final VersionStore versions;
    private final HouseStore house;

    public DesignTree(Sight sight, References references, LinkStore links, VersionStore versions, HouseStore house) {
        this.sight = sight;
        this.references = references;
        this.links = links;
        this.versions = versions;
        this.house = house;
    }

    /**
     * A document of it.
     *
     * @param version by which it goes into the new design
     * @param title that it has with that version
     */
    public record Node(Seen seen, VersionRow version, String title, Aspect aspect, List<Reference> refersTo) {
        public long id() {
            return seen.spine().id();
        }

        public String number() {
            return seen.document().number();
        }

        /** Whether a later version of it is there, which does not go along. */
        public boolean isBehind() {
            return version.number() != seen.version();
        }
    }

    /**
     * A thing: what has one number.
     *
     * @param main what stands in others, {@code along} its drawings and papers
     * @param depth in the tree, 0 at the top
     * @param count how often it stands in what it is shown under
     * @param below things that stand right in it or belong to it
     */
    public record Row(Node main, List<Node> along, int depth, int count, List<Long> below) {
        public long id() {
            return main.id();
        }

        public List<Node> nodes() {
            List<Node> all = new ArrayList<>(List.of(main));
            all.addAll(along);
            return all;
        }
    }

    /**
     * @param rows the top first, each below what it stands in
     * @param thingOf thing by document
     * @param hidden documents in it that the actor does not see, which stay
     * @param missing names in its files that lead to nothing
     */
    public record Tree(StructureView view, List<Row> rows, Map<Long, Long> thingOf, int hidden, int missing) {
        public Row top() {
            return rows.get(0);
        }
    }

    /** What a design begins with: a document; of a sheet that shows a model of its number, the model. */
    public Seen top(Actor actor, long root) {
        Seen top = sight.of(actor, root);
        return links.shown(List.of(root)).stream()
                .filter(s -> s.item() == root)
                .map(LinkStore.Shown::target)
                .flatMap(t -> sight.of(actor, List.of(t)).values().stream())
                .filter(t -> key(t).equals(key(top)))
                .findFirst()
                .orElse(top);
    }

    /** The structure below a document, from its {@link #top} on. */
    public Tree of(Actor actor, long root, StructureView view) {
        Walk walk = new Walk(actor, view);
        long model = top(actor, root).spine().id();
        Map<Long, Long> next = Map.of(model, 0L);
        while (!next.isEmpty()) next = walk.level(next);
        return walk.tree(model);
    }

    private static String key(Seen seen) {
        return NumberKey.of(seen.document().number())
                .toOptional()
                .map(NumberKey::key)
                .orElse("/" + seen.spine().id());
    }

    /** A thing while it is put together. */
    private static final class Thing {
        private final List<Node> nodes = new ArrayList<>();
        private final Set<Long> belongs = new LinkedHashSet<>();
    }

    private final class Walk {
        private final Actor actor;
        private final StructureView view;
        private final Map<Long, Kind> kinds = house.kinds().stream().collect(Collectors.toMap(Kind::id, k -> k));
        private final Map<String, Thing> things = new LinkedHashMap<>();
        private final Map<Long, Thing> thingOf = new HashMap<>();
        private final Set<Long> met = new HashSet<>();
        private int hidden;
        private int missing;

        Walk(Actor actor, StructureView view) {
            this.actor = actor;
            this.view = view;
        }

        /** Takes documents in, by the ids of the versions that they were saved with; gives those that stand in them. */
        Map<Long, Long> level(Map<Long, Long> items) {
            met.addAll(items.keySet());
            Map<Long, Seen> seen = new LinkedHashMap<>();
            Map<Long, Seen> found = sight.of(actor, items.keySet());
            items.keySet().forEach(id -> {
                Seen one = found.get(id);
                if (one == null) hidden++;
                else seen.put(id, one);
            });
            List<Belongs> belonging = links.belonging(seen.keySet());
            Set<Long> unknown = new LinkedHashSet<>();
            belonging.forEach(b -> {
                if (met.add(b.item())) unknown.add(b.item());
            });
            Map<Long, Seen> beside = new LinkedHashMap<>();
            Map<Long, Seen> known = sight.of(actor, unknown);
            for (long id : unknown) {
                Seen one = known.get(id);
                if (one != null && !one.document().dropped() && !one.spine().isChangePaper()) beside.put(id, one);
            }
            Map<Long, Node> nodes = nodes(seen, beside, items);
            seen.forEach((id, s) -> take(s, nodes));
            for (Belongs b : belonging) {
                Seen one = beside.get(b.item());
                if (one == null) continue;
                take(one, nodes);
                Thing thing = thingOf.get(b.item());
                Thing target = thingOf.get(b.target());
                if (thing != null && target != null && thing != target) target.belongs.add(b.item());
            }
            if (thingOf.size() > MOST)
                throw Refused.because(
                        "design.many",
                        "This design has more than " + MOST + " documents.",
                        "Begin from a part of it; nothing was made.");
            return below(nodes.values());
        }

        private void take(Seen seen, Map<Long, Node> nodes) {
            Node node = nodes.get(seen.spine().id());
            if (node == null || thingOf.containsKey(node.id())) return;
            Thing thing = things.computeIfAbsent(key(seen), k -> new Thing());
            thing.nodes.add(node);
            thingOf.put(node.id(), thing);
        }

        private Map<Long, Node> nodes(Map<Long, Seen> seen, Map<Long, Seen> beside, Map<Long, Long> saved) {
            Map<Long, Long> chosen = new LinkedHashMap<>();
            seen.forEach((id, s) -> chosen.put(id, chosen(s, saved.getOrDefault(id, 0L))));
            beside.forEach((id, s) -> chosen.put(id, chosen(s, 0L)));
            Map<Long, VersionRow> rows = versions.versionsById(chosen.values());
            Map<Long, List<Reference>> refersTo = references.of(chosen.values());
            Map<Long, Node> nodes = new LinkedHashMap<>();
            chosen.forEach((id, version) -> {
                Seen one = Optional.ofNullable(seen.get(id)).orElseGet(() -> Objects.requireNonNull(beside.get(id)));
                VersionRow row = rows.get(version);
                Kind kind = kinds.get(one.document().place().kind());
                if (row == null || kind == null) return;
                nodes.put(
                        id,
                        new Node(
                                one,
                                row,
                                title(one, version),
                                kind.aspect(),
                                refersTo.getOrDefault(version, List.of())));
            });
            return nodes;
        }

        /** The version by which a document goes along: what the view shows of it, as far as the actor sees it. */
        private long chosen(Seen seen, long saved) {
            long head = seen.document().head().version();
            if (!seen.all()) return head;
            return switch (view) {
                case LATEST_RELEASED, AS_RELEASED ->
                    seen.spine().out().map(o -> o.head().version()).orElse(head);
                case AS_SAVED -> saved == 0 ? head : saved;
                case LATEST, ON_DATE -> head;
            };
        }

        private static String title(Seen seen, long version) {
            return seen.spine()
                    .out()
                    .filter(o -> o.head().version() == version)
                    .map(o -> o.title())
                    .orElse(seen.document().title());
        }

        private Map<Long, Long> below(Collection<Node> nodes) {
            Map<Long, Long> next = new LinkedHashMap<>();
            for (Node node : nodes) {
                for (Reference r : node.refersTo()) {
                    if (r.component().isEmpty()) missing++;
                    r.component()
                            .filter(c -> !met.contains(c.item()))
                            .ifPresent(c -> next.merge(c.item(), c.version(), Math::max));
                }
            }
            return next;
        }

        Tree tree(long top) {
            Map<Thing, Node> mains = new HashMap<>();
            things.values().forEach(t -> mains.put(t, t.nodes.get(0)));
            Map<Long, Long> ids = new HashMap<>();
            thingOf.forEach((id, thing) ->
                    ids.put(id, Objects.requireNonNull(mains.get(thing)).id()));
            Map<Long, Thing> byId = new HashMap<>();
            things.values().forEach(t -> byId.put(t.nodes.get(0).id(), t));
            List<Row> rows = new ArrayList<>();
            walk(ids.getOrDefault(top, top), 0, 1, byId, ids, new HashSet<>(), rows);
            return new Tree(view, rows, ids, hidden, missing);
        }

        private static Optional<Long> below(Reference reference, long id, Map<Long, Long> ids) {
            return reference
                    .component()
                    .flatMap(c -> Optional.ofNullable(ids.get(c.item())))
                    .filter(c -> c != id);
        }

        /** Each thing where it is met first. */
        private static void walk(
                long id,
                int depth,
                int count,
                Map<Long, Thing> byId,
                Map<Long, Long> ids,
                Set<Long> shown,
                List<Row> rows) {
            Thing thing = byId.get(id);
            if (thing == null || !shown.add(id)) return;
            if (depth > DEEPEST)
                throw Refused.because(
                        "design.deep",
                        "This design goes deeper than " + DEEPEST + " levels.",
                        "Begin from a part of it; nothing was made.");
            Map<Long, Integer> below = new LinkedHashMap<>();
            for (Reference r : thing.nodes.get(0).refersTo())
                below(r, id, ids).ifPresent(c -> below.merge(c, r.written().quantity(), Integer::sum));
            // What a sheet of it shows too is counted once.
            for (Node node : thing.nodes)
                for (Reference r : node.refersTo())
                    below(r, id, ids)
                            .ifPresent(c -> below.putIfAbsent(c, r.written().quantity()));
            thing.belongs.forEach(
                    b -> Optional.ofNullable(ids.get(b)).filter(c -> c != id).ifPresent(c -> below.putIfAbsent(c, 1)));
            List<Node> along = thing.nodes.stream()
                    .skip(1)
                    .sorted((a, b) -> a.aspect().compareTo(b.aspect()))
                    .toList();
            rows.add(new Row(thing.nodes.get(0), along, depth, count, List.copyOf(below.keySet())));
            below.forEach((c, n) -> walk(c, depth + 1, n, byId, ids, shown, rows));
        }
    }
}
