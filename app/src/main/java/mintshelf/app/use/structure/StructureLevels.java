package mintshelf.app.use.structure;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.store.structure.ReferenceStore.Frozen;
import mintshelf.app.store.structure.ShownStore;
import mintshelf.app.store.structure.ShownStore.Shown;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Component;

/** Which versions stand below a version in a view, level by level: what trees and bills of materials are read from. */
@Component
class StructureLevels {
    private final Sight sight;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final ReferenceStore references;
    private final ShownStore shown;
    private final Settings settings;
    private final Clock clock;

    StructureLevels(
            Sight sight,
            RevisionStore revisions,
            VersionStore versions,
            ReferenceStore references,
            ShownStore shown,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.revisions = revisions;
        this.versions = versions;
        this.references = references;
        this.shown = shown;
        this.settings = settings;
        this.clock = clock;
    }

    /** The day on which what is read in a view is built: the view's, else today. */
    LocalDate built(StructureView view, LocalDate day) {
        return view == StructureView.ON_DATE ? day : LocalDate.ofInstant(clock.instant(), settings.zone());
    }

    /** What a version, and in the view of releases the revision, of a document consists of. */
    record Node(long version, long revision) {}

    record Child(Reference reference, Optional<Shown> shown, Node node) {}

    /** What versions have beside what their files refer to, by version. */
    interface Beside {
        Map<Long, List<Reference>> of(Collection<Long> versions);
    }

    /**
     * How far it is read.
     *
     * @param most versions whose components are looked at, about
     */
    record Reach(int deepest, int most, Beside beside) {}

    Optional<Node> start(Seen top, StructureView view, Optional<Integer> number, LocalDate day) {
        long item = top.spine().id();
        if (number.isPresent() && top.all()) {
            return Optional.of(versions.version(item, number.get())
                    .map(v -> new Node(v.id(), v.revision()))
                    .orElseThrow(NotThere::new));
        }
        return switch (view) {
            case AS_SAVED, LATEST ->
                Optional.of(new Node(
                        top.document().head().version(), top.document().head().revision()));
            case LATEST_RELEASED, AS_RELEASED ->
                top.document()
                        .released()
                        .or(() -> top.document().lastEnded())
                        .flatMap(r -> revisions.revisions(item).stream()
                                .filter(row -> row.revision().id() == r.id())
                                .findFirst()
                                .flatMap(row -> row.releasedVersion()))
                        .flatMap(n -> versions.version(item, n))
                        .map(v -> new Node(v.id(), v.revision()));
            case ON_DATE ->
                Optional.ofNullable(shown.at(List.of(item), endOf(day)).get(item))
                        .map(s -> new Node(s.version(), 0));
        };
    }

    private Instant endOf(LocalDate day) {
        return day.plusDays(1).atStartOfDay(settings.zone()).toInstant().minusMillis(1);
    }

    /**
     * Level by level, each version once, however often it stands in the tree: a few statements a level. Of a component of which the
     * person sees released versions only, the one in force stands in the place of what the view would show.
     */
    Map<Node, List<Child>> levels(
            Actor actor,
            Node start,
            StructureView view,
            LocalDate day,
            Reach reach,
            Map<Long, Seen> seen,
            Map<Long, Shown> instead) {
        Map<Node, List<Child>> children = new HashMap<>();
        Set<Node> level = Set.of(start);
        for (int depth = 0; depth < reach.deepest() && !level.isEmpty() && children.size() < reach.most(); depth++) {
            List<Long> ids = level.stream().map(Node::version).toList();
            Map<Long, List<Reference>> refersTo = references.of(ids);
            reach.beside()
                    .of(ids)
                    .forEach((version, more) -> refersTo.computeIfAbsent(version, v -> new ArrayList<>())
                            .addAll(more));
            Set<Long> items = new HashSet<>();
            refersTo.values().forEach(list -> list.forEach(r -> r.component().ifPresent(c -> items.add(c.item()))));
            Set<Long> unknown = new HashSet<>(items);
            unknown.removeAll(seen.keySet());
            seen.putAll(sight.of(actor, unknown));
            Set<Long> released = new HashSet<>(items);
            released.removeIf(i -> seen.containsKey(i) && seen.get(i).all());
            Map<Long, Shown> out = view.isReleasedOnly() || released.isEmpty() ? Map.of() : shown.inForce(released);
            Map<Long, Shown> chosen = chosen(view, items, day);
            Map<Long, List<Frozen>> frozen = view == StructureView.AS_RELEASED
                    ? references.frozen(level.stream().map(Node::revision).toList())
                    : Map.of();
            Map<Long, Shown> captured = captured(refersTo.values());
            captured.putAll(shown.versions(frozen.values().stream()
                    .flatMap(List::stream)
                    .filter(Frozen::released)
                    .map(Frozen::version)
                    .toList()));
            Set<Node> next = new HashSet<>();
            for (Node node : level) {
                Map<Long, Frozen> kept = new HashMap<>();
                frozen.getOrDefault(node.revision(), List.of()).forEach(f -> kept.put(f.component(), f));
                List<Child> list = new ArrayList<>();
                for (Reference r : refersTo.getOrDefault(node.version(), List.of())) {
                    Shown other = r.component()
                            .flatMap(c -> Optional.ofNullable(instead.get(c.item())))
                            .orElse(null);
                    Child child = other != null
                            ? new Child(r, Optional.of(other), new Node(other.version(), 0))
                            : r.component().isPresent()
                                            && !view.isReleasedOnly()
                                            && released.contains(
                                                    r.component().get().item())
                                    ? outside(r, out)
                                    : child(view, r, chosen, kept, captured);
                    list.add(child);
                    if (child.shown().isPresent() && !children.containsKey(child.node())) next.add(child.node());
                }
                children.put(node, list);
            }
            next.removeAll(children.keySet());
            level = next;
        }
        return children;
    }

    private static Child outside(Reference r, Map<Long, Shown> out) {
        Optional<Shown> shown =
                Optional.ofNullable(out.get(r.component().orElseThrow().item()));
        return new Child(r, shown, new Node(shown.map(Shown::version).orElse(0L), 0));
    }

    private Map<Long, Shown> captured(Collection<List<Reference>> all) {
        Map<Long, Shown> captured = new HashMap<>();
        all.forEach(list -> list.forEach(r -> r.component()
                .ifPresent(c -> captured.put(c.version(), new Shown(c.version(), c.number(), c.substance())))));
        return captured;
    }

    private Map<Long, Shown> chosen(StructureView view, Set<Long> items, LocalDate day) {
        return switch (view) {
            case LATEST -> shown.latestShown(items);
            case LATEST_RELEASED -> shown.inForce(items);
            case ON_DATE -> shown.at(items, endOf(day));
            case AS_SAVED, AS_RELEASED -> Map.of();
        };
    }

    private Child child(
            StructureView view,
            Reference r,
            Map<Long, Shown> chosen,
            Map<Long, Frozen> frozen,
            Map<Long, Shown> captured) {
        if (r.component().isEmpty()) return new Child(r, Optional.empty(), new Node(0, 0));
        Reference.Component c = r.component().get();
        if (view == StructureView.AS_SAVED) {
            return new Child(r, Optional.of(captured.get(c.version())), new Node(c.version(), 0));
        }
        if (view == StructureView.AS_RELEASED) {
            Frozen kept = frozen.get(c.item());
            if (kept == null || !kept.released()) return new Child(r, Optional.empty(), new Node(0, 0));
            return new Child(
                    r, Optional.ofNullable(captured.get(kept.version())), new Node(kept.version(), kept.revision()));
        }
        Optional<Shown> shown = Optional.ofNullable(chosen.get(c.item()));
        return new Child(r, shown, new Node(shown.map(Shown::version).orElse(0L), 0));
    }
}
