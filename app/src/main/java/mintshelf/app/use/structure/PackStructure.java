package mintshelf.app.use.structure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.References;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.pack.PackStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Refusal;
import mintshelf.core.reference.PackNames;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** What is in a pack of a structure, or of a baseline: exact versions, and files that name each other as they lie in it. */
@Service
public class PackStructure {
    private final ReadStructure structure;
    private final KeepBaselines baselines;
    private final Sight sight;
    private final LinkStore links;
    private final VersionStore versions;
    private final References references;
    private final MayFetch may;

    public PackStructure(
            ReadStructure structure,
            KeepBaselines baselines,
            Sight sight,
            LinkStore links,
            VersionStore versions,
            References references,
            MayFetch may) {
        this.structure = structure;
        this.baselines = baselines;
        this.sight = sight;
        this.links = links;
        this.versions = versions;
        this.references = references;
        this.may = may;
    }

    /**
     * What is wanted.
     *
     * @param baseline whose versions they are, instead of those of the structure in a view
     * @param sheets whether the drawings of what is in it come along
     * @param pages whether drawings come as PDF too, {@code neutral} whether neutral copies do
     */
    public record Asked(
            StructureView view,
            Optional<Integer> version,
            Optional<Long> baseline,
            LocalDate day,
            Layout layout,
            boolean sheets,
            boolean pages,
            boolean neutral) {}

    /**
     * A document of a pack.
     *
     * @param path in the pack
     * @param paths how it names others there, by what is written in its file now
     * @param left why they are not written into it, where they are not
     */
    public record Entry(Seen seen, VersionRow version, String path, Map<String, String> paths, Optional<Refusal> left) {
        public boolean isRewritten() {
            return !paths.isEmpty() && left.isEmpty();
        }
    }

    /**
     * @param shown what it is a pack of, in words; {@code versions} which versions these are
     * @param version of the top
     * @param absent what is not in it, and why
     */
    public record Plan(
            Seen top,
            String shown,
            String versions,
            int version,
            Asked asked,
            List<Entry> entries,
            List<String> absent) {
        public long bytes() {
            return entries.stream().mapToLong(e -> e.version().content().size()).sum();
        }

        public long rewritten() {
            return entries.stream().filter(Entry::isRewritten).count();
        }

        public List<Entry> left() {
            return entries.stream().filter(e -> e.left().isPresent()).toList();
        }
    }

    /** What is on the way to be a plan: which version of what, and what is not in it. */
    private static final class Wanted {
        final Map<Long, Integer> versions = new LinkedHashMap<>();
        final Map<Long, Seen> seen = new HashMap<>();
        final List<String> absent = new ArrayList<>();

        void add(Seen one, int version) {
            versions.merge(one.spine().id(), version, Math::max);
            seen.put(one.spine().id(), one);
        }
    }

    /** What would be in it. Of a document of which several versions stand in it the latest is taken. */
    public Plan plan(Actor actor, long item, Asked asked) {
        return asked.baseline()
                .map(baseline -> ofBaseline(actor, item, asked, baseline))
                .orElseGet(() -> ofTree(actor, item, asked));
    }

    private Plan ofTree(Actor actor, long item, Asked asked) {
        ReadStructure.Structure tree = structure.tree(actor, item, asked.view(), asked.version(), asked.day());
        // What leaves the house is packed by who works on it; who reads fetches for themselves.
        if (!tree.top().all()) throw new NotThere();
        int top = tree.version().orElseThrow(NotThere::new);
        Wanted wanted = new Wanted();
        if (tree.cut()) wanted.absent.add("Its structure has more rows than one pack takes; the rest is not in it.");
        wanted.add(tree.top(), top);
        for (ReadStructure.Row row : tree.rows()) {
            if (row.seen().isEmpty() || row.shown().isEmpty()) {
                wanted.absent.add("Not in it: " + row.reference().written().path());
                continue;
            }
            Seen seen = row.seen().get();
            Integer before = wanted.versions.get(seen.spine().id());
            int version = row.shown().get().number();
            if (before != null && before != version)
                wanted.absent.add(
                        "Of several versions the latest: " + seen.document().number());
            wanted.add(seen, version);
        }
        if (asked.sheets()) sheets(actor, tree.view(), wanted);
        return plan(
                actor,
                tree.top(),
                tree.top().document().number() + ", " + tree.view().words(),
                tree.view().words(),
                top,
                asked,
                wanted);
    }

    /** A baseline is packed as it was kept: no drawing comes along that is not in it. */
    private Plan ofBaseline(Actor actor, long item, Asked asked, long baseline) {
        KeepBaselines.Kept kept = baselines.kept(actor, baseline, "");
        if (kept.lead().spine().id() != item) throw new NotThere();
        Wanted wanted = new Wanted();
        if (kept.hidden() > 0) wanted.absent.add("Not in it: " + kept.hidden() + " documents that you do not see");
        kept.lines().forEach(l -> wanted.add(l.seen(), l.row().number()));
        return plan(
                actor,
                kept.lead(),
                kept.lead().document().number() + ", baseline " + baseline,
                "those of the baseline “" + kept.baseline().name() + "”",
                wanted.versions.getOrDefault(item, kept.lead().version()),
                asked,
                wanted);
    }

    private Plan plan(
            Actor actor, Seen top, String shown, String versionWords, int version, Asked asked, Wanted wanted) {
        List<PackStore.Row> rows = new ArrayList<>();
        Map<Long, String> places = PackNames.places(
                wanted.versions.keySet().stream()
                        .map(id -> file(wanted.seen, id, wanted.versions))
                        .flatMap(Optional::stream)
                        .toList(),
                asked.layout());
        wanted.versions.forEach((id, number) -> {
            String path = places.get(id);
            if (path != null) rows.add(new PackStore.Row(id, number, path));
        });
        List<Entry> entries = entries(actor, rows, wanted.absent);
        return new Plan(
                top,
                shown,
                versionWords,
                version,
                asked,
                entries,
                wanted.absent.stream().distinct().toList());
    }

    private Optional<PackNames.File> file(Map<Long, Seen> seen, long id, Map<Long, Integer> wanted) {
        return Optional.ofNullable(seen.get(id))
                .flatMap(s -> versions.version(id, wanted.getOrDefault(id, 0))
                        .map(v -> new PackNames.File(id, folders(s.spine()), v.fileName())));
    }

    private static List<String> folders(Spine spine) {
        List<String> folders = new ArrayList<>();
        for (Folder folder : spine.path()) folders.add(0, folder.name());
        return folders;
    }

    private void sheets(Actor actor, StructureView view, Wanted wanted) {
        List<Long> drawings = links.belonging(List.copyOf(wanted.versions.keySet())).stream()
                .filter(b -> b.kind() == LinkStore.Kind.SHOWS && !wanted.versions.containsKey(b.item()))
                .map(LinkStore.Belongs::item)
                .distinct()
                .toList();
        Map<Long, Seen> shown = sight.of(actor, drawings);
        for (long id : drawings) {
            Seen one = shown.get(id);
            if (one == null || one.document().dropped()) continue;
            Optional<Integer> released = one.spine().out().map(o -> o.head().number());
            if (view.isReleasedOnly() && released.isEmpty()) continue;
            wanted.add(one, view.isReleasedOnly() ? released.orElseThrow() : one.version());
        }
    }

    /** The documents of rows with what their files name in the pack; those that the actor may not have are told. */
    List<Entry> entries(Actor actor, List<PackStore.Row> rows, List<String> absent) {
        Map<Long, Seen> seen =
                sight.of(actor, rows.stream().map(PackStore.Row::item).toList());
        Map<Long, String> places = new HashMap<>();
        Map<Long, VersionRow> found = new LinkedHashMap<>();
        for (PackStore.Row row : rows) {
            Seen one = seen.get(row.item());
            Optional<VersionRow> version = versions.version(row.item(), row.version());
            if (one == null || version.isEmpty()) {
                absent.add("Not there for you any more: " + row.path());
                continue;
            }
            Optional<Refusal> refusal = may.refusal(actor, one, version.get());
            if (refusal.isPresent()) {
                absent.add(row.path() + ": " + refusal.get().says());
                continue;
            }
            places.put(row.item(), row.path());
            found.put(row.item(), version.get());
        }
        Map<Long, List<Reference>> refersTo =
                references.of(found.values().stream().map(VersionRow::id).toList());
        List<Entry> entries = new ArrayList<>();
        found.forEach((id, version) -> {
            String path = places.getOrDefault(id, "");
            Map<String, String> paths = new LinkedHashMap<>();
            for (Reference r : refersTo.getOrDefault(version.id(), List.of()))
                r.component()
                        .flatMap(c -> Optional.ofNullable(places.get(c.item())))
                        .flatMap(to -> PackNames.written(r.written().path(), path, to))
                        .ifPresent(to -> paths.put(r.written().path(), to));
            Optional<Refusal> left = paths.isEmpty() ? Optional.empty() : RewriteReferences.form(version.content());
            Optional.ofNullable(seen.get(id)).ifPresent(s -> entries.add(new Entry(s, version, path, paths, left)));
        });
        return entries;
    }
}
