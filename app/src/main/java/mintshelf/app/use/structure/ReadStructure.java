package mintshelf.app.use.structure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.app.store.structure.ShownStore.Shown;
import mintshelf.app.use.structure.StructureLevels.Child;
import mintshelf.app.use.structure.StructureLevels.Node;
import mintshelf.app.use.structure.StructureLevels.Reach;
import mintshelf.core.document.Head;
import mintshelf.core.document.VersionName;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** What a document consists of, in a chosen view. */
@Service
public class ReadStructure {
    /** Rows of a tree; what is beyond is opened from its own page. */
    public static final int MOST_ROWS = 1500;

    private static final int DEEPEST = 40;

    private final Sight sight;
    private final VersionStore versions;
    private final ReferenceStore references;
    private final StructureMirror mirror;
    private final StructureLevels levels;
    private final Trials trials;
    private final Numbered numbered;

    public ReadStructure(
            Sight sight,
            VersionStore versions,
            ReferenceStore references,
            StructureMirror mirror,
            StructureLevels levels,
            Trials trials,
            Numbered numbered) {
        this.numbered = numbered;
        this.trials = trials;
        this.sight = sight;
        this.versions = versions;
        this.references = references;
        this.mirror = mirror;
        this.levels = levels;
    }

    /** What else bears the number of a row's document: its drawing beside a model. By document, as this person sees them now. */
    public Map<Long, List<Seen>> beside(Actor actor, Structure structure) {
        Map<Long, Seen> rows = new LinkedHashMap<>();
        structure
                .rows()
                .forEach(r -> r.seen().ifPresent(s -> rows.putIfAbsent(s.spine().id(), s)));
        return numbered.beside(actor, rows.values());
    }

    /**
     * A row of the tree.
     *
     * @param find its number on the level, dotted: 3.2
     * @param seen the document; empty where it is missing, ambiguous, or not to be seen by this person
     * @param shown the version that the view shows; empty where the view has none
     * @param newer how many versions people have made of it since the one that was captured
     * @param belowOutOfDate whether something further below is newer than what it was saved with
     * @param ring whether it stands above itself already; it goes no deeper
     */
    public record Row(
            int depth,
            String find,
            Optional<Seen> seen,
            Reference reference,
            Optional<Shown> shown,
            int newer,
            boolean belowOutOfDate,
            boolean ring) {
        /** Whether it is a document that this person may not see. */
        public boolean isHidden() {
            return seen.isEmpty() && reference.isFound();
        }
    }

    /**
     * A structure.
     *
     * @param version number of the top's version that it is read from
     * @param cut whether more rows are below than are shown
     * @param incomplete whether some of it is not for this person's eyes
     * @param tried what the versions of a trial are called that stand in the place of its documents, by document
     */
    public record Structure(
            Seen top,
            StructureView view,
            Optional<Integer> version,
            List<Row> rows,
            boolean cut,
            boolean incomplete,
            Map<Long, VersionName> tried) {
        /** What the version of a document is called that stands in it. */
        public VersionName name(long item, int number) {
            return tried.getOrDefault(item, VersionName.main(number));
        }

        /** Rows of the level right below the top that are newer than they were saved with. */
        public long outOfDate() {
            return rows.stream().filter(r -> r.depth() == 0 && r.newer() > 0).count();
        }

        public long missing() {
            return rows.stream().filter(r -> !r.reference().isFound()).count();
        }

        /** How the components stand, each document once: what is said of how many, with the rows' filter. */
        public List<Standing> standing() {
            Map<String, Set<Long>> words = new LinkedHashMap<>();
            Map<String, String> only = new HashMap<>();
            for (Row row : rows) {
                Seen s = row.seen().orElse(null);
                if (s == null) continue;
                for (String filter : Only.of(s)) {
                    String word = Only.words(filter, s);
                    words.computeIfAbsent(word, w -> new LinkedHashSet<>())
                            .add(s.spine().id());
                    only.put(word, filter);
                }
            }
            List<Standing> standing = new ArrayList<>();
            words.forEach((word, items) -> standing.add(new Standing(items.size(), word, only.get(word))));
            standing.sort(Comparator.comparing(
                            (Standing one) -> Only.ORDER.indexOf(one.only().replaceAll("-.*", "")))
                    .thenComparing(Standing::words));
            return standing;
        }

        /** The same with the rows that a filter lets through. */
        public Structure only(String filter) {
            List<Row> left = rows.stream()
                    .filter(r ->
                            r.seen().filter(s -> Only.of(s).contains(filter)).isPresent())
                    .toList();
            return new Structure(top, view, version, left, cut, incomplete, tried);
        }
    }

    /** So many components stand so; {@code only} filters the rows to them. */
    public record Standing(int count, String words, String only) {}

    /**
     * The tree below a document.
     *
     * @param number the version to begin with; empty for the one that the view shows
     */
    public Structure tree(Actor actor, long item, StructureView asked, Optional<Integer> number, LocalDate day) {
        return tree(actor, item, asked, number, day, Optional.empty());
    }

    /** As {@link #tree(Actor, long, StructureView, Optional, LocalDate)}, with what a trial has in the place of its documents, where the actor sees them at work. */
    public Structure tree(
            Actor actor,
            long item,
            StructureView asked,
            Optional<Integer> number,
            LocalDate day,
            Optional<Long> trial) {
        return tree(
                actor,
                item,
                asked,
                number,
                day,
                DEEPEST,
                trial.map(t -> instead(actor, t)).orElse(Map.of()));
    }

    private Map<Long, Instead> instead(Actor actor, long trial) {
        Map<Long, Instead> instead = new HashMap<>();
        for (Trials.Tried tried : trials.whole(actor, trial).lines())
            if (tried.line().begun()) {
                Head head = tried.line().head();
                instead.put(
                        tried.item(),
                        new Instead(new Shown(head.version(), head.number(), head.number()), head.name()));
            }
        return instead;
    }

    /** What stands in the place of a document. */
    private record Instead(Shown shown, VersionName name) {}

    /** Trials under way that have something of what stands in a structure, the latest first. */
    public List<Trials.Whole> trials(Actor actor, Structure structure) {
        if (!structure.top().all()) return List.of();
        Set<Long> items = new HashSet<>(Set.of(structure.top().spine().id()));
        structure
                .rows()
                .forEach(r -> r.seen().ifPresent(s -> items.add(s.spine().id())));
        return trials.underWay(actor, items);
    }

    /** The components right below a document, as it was saved: for its own page. */
    public Structure firstLevel(Actor actor, long item) {
        return tree(actor, item, StructureView.AS_SAVED, Optional.empty(), LocalDate.EPOCH, 1, Map.of());
    }

    /** The components right below a version, as it was saved. */
    public Structure firstLevel(Actor actor, long item, int number) {
        return tree(actor, item, StructureView.AS_SAVED, Optional.of(number), LocalDate.EPOCH, 1, Map.of());
    }

    private Structure tree(
            Actor actor,
            long item,
            StructureView asked,
            Optional<Integer> number,
            LocalDate day,
            int deepest,
            Map<Long, Instead> instead) {
        Seen top = sight.of(actor, item);
        StructureView view = top.all() || asked.isReleasedOnly() ? asked : StructureView.AS_RELEASED;
        Optional<Node> start = Optional.ofNullable(instead.get(item))
                .filter(i -> number.isEmpty())
                .map(i -> new Node(i.shown().version(), 0))
                .or(() -> levels.start(top, view, number, day));
        if (start.isEmpty()) return new Structure(top, view, Optional.empty(), List.of(), false, false, Map.of());
        Map<Long, Seen> seen = new HashMap<>();
        Map<Long, Shown> others = new HashMap<>();
        instead.forEach((id, i) -> others.put(id, i.shown()));
        Reach reach = new Reach(deepest, MOST_ROWS, ids -> Map.of());
        Map<Node, List<Child>> children = levels.levels(actor, start.get(), view, day, reach, seen, others);
        Set<Long> items = new HashSet<>();
        children.values()
                .forEach(list -> list.forEach(c -> c.reference().component().ifPresent(r -> items.add(r.item()))));
        Map<Long, List<Integer>> made = references.made(items);
        Map<Long, Boolean> outOfDate = top.all() ? mirror.now().outOfDate() : Map.of();
        List<Row> rows = new ArrayList<>();
        List<Long> path = new ArrayList<>(List.of(item));
        boolean cut = !walk(start.get(), "", path, children, seen, made, outOfDate, rows);
        int version = Objects.requireNonNull(
                        versions.versionsById(List.of(start.get().version()))
                                .get(start.get().version()))
                .number();
        Map<Long, VersionName> tried = new HashMap<>();
        instead.forEach((id, i) -> tried.put(id, i.name()));
        if (number.isPresent()) tried.remove(item);
        return new Structure(
                top, view, Optional.of(version), rows, cut, rows.stream().anyMatch(Row::isHidden), tried);
    }

    private boolean walk(
            Node node,
            String find,
            List<Long> path,
            Map<Node, List<Child>> children,
            Map<Long, Seen> seen,
            Map<Long, List<Integer>> made,
            Map<Long, Boolean> outOfDate,
            List<Row> rows) {
        int n = 0;
        for (Child child : children.getOrDefault(node, List.of())) {
            if (rows.size() >= MOST_ROWS) return false;
            n++;
            Optional<Reference.Component> component = child.reference().component();
            long item = component.map(Reference.Component::item).orElse(0L);
            Optional<Seen> visible = Optional.ofNullable(seen.get(item));
            boolean ring = path.contains(item);
            int newer = visible.filter(Seen::all)
                    .flatMap(s -> component)
                    .map(c -> (int) made.getOrDefault(item, List.of()).stream()
                            .filter(v -> v > c.substance())
                            .count())
                    .orElse(0);
            String number = find.isEmpty() ? String.valueOf(n) : find + "." + n;
            rows.add(new Row(
                    path.size() - 1,
                    number,
                    visible,
                    child.reference(),
                    child.shown(),
                    newer,
                    outOfDate.containsKey(item),
                    ring));
            // What a person may not see opens no view on what is below it.
            if (ring || child.shown().isEmpty() || visible.isEmpty()) continue;
            path.add(item);
            boolean whole = walk(child.node(), number, path, children, seen, made, outOfDate, rows);
            path.remove(path.size() - 1);
            if (!whole) return false;
        }
        return true;
    }
}
