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

/** What is in a pack of a structure: exact versions, and files that name each other as they lie in it. */
@Service
public class PackStructure {
    private final ReadStructure structure;
    private final Sight sight;
    private final LinkStore links;
    private final VersionStore versions;
    private final References references;
    private final MayFetch may;

    public PackStructure(
            ReadStructure structure,
            Sight sight,
            LinkStore links,
            VersionStore versions,
            References references,
            MayFetch may) {
        this.structure = structure;
        this.sight = sight;
        this.links = links;
        this.versions = versions;
        this.references = references;
        this.may = may;
    }

    /**
     * What is wanted.
     *
     * @param sheets whether the drawings of what is in it come along
     * @param pages whether drawings come as PDF too, {@code neutral} whether neutral copies do
     */
    public record Asked(
            StructureView view,
            Optional<Integer> version,
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
     * @param version of the top
     * @param absent what is not in it, and why
     */
    public record Plan(
            Seen top, StructureView view, int version, Asked asked, List<Entry> entries, List<String> absent) {
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

    /** What would be in it. Of a document of which several versions stand in it the latest is taken. */
    public Plan plan(Actor actor, long item, Asked asked) {
        ReadStructure.Structure tree = structure.tree(actor, item, asked.view(), asked.version(), asked.day());
        // What leaves the house is packed by who works on it; who reads fetches for themselves.
        if (!tree.top().all()) throw new NotThere();
        int top = tree.version().orElseThrow(NotThere::new);
        List<String> absent = new ArrayList<>();
        if (tree.cut()) absent.add("Its structure has more rows than one pack takes; the rest is not in it.");
        Map<Long, Integer> wanted = new LinkedHashMap<>();
        Map<Long, Seen> seen = new HashMap<>();
        wanted.put(item, top);
        seen.put(item, tree.top());
        for (ReadStructure.Row row : tree.rows()) {
            if (row.seen().isEmpty() || row.shown().isEmpty()) {
                absent.add("Not in it: " + row.reference().written().path());
                continue;
            }
            long id = row.seen().get().spine().id();
            Integer before = wanted.get(id);
            int version = row.shown().get().number();
            if (before != null && before != version)
                absent.add("Of several versions the latest: "
                        + row.seen().get().document().number());
            wanted.merge(id, version, Math::max);
            seen.put(id, row.seen().get());
        }
        if (asked.sheets()) sheets(actor, tree.view(), wanted, seen);
        List<PackStore.Row> rows = new ArrayList<>();
        Map<Long, String> places = PackNames.places(
                wanted.keySet().stream()
                        .map(id -> file(seen, id, wanted))
                        .flatMap(Optional::stream)
                        .toList(),
                asked.layout());
        wanted.forEach((id, version) -> {
            String path = places.get(id);
            if (path != null) rows.add(new PackStore.Row(id, version, path));
        });
        return new Plan(
                tree.top(),
                tree.view(),
                top,
                asked,
                entries(actor, rows, absent),
                absent.stream().distinct().toList());
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

    private void sheets(Actor actor, StructureView view, Map<Long, Integer> wanted, Map<Long, Seen> seen) {
        List<Long> drawings = links.belonging(List.copyOf(wanted.keySet())).stream()
                .filter(b -> b.kind() == LinkStore.Kind.SHOWS && !wanted.containsKey(b.item()))
                .map(LinkStore.Belongs::item)
                .distinct()
                .toList();
        Map<Long, Seen> shown = sight.of(actor, drawings);
        for (long id : drawings) {
            Seen one = shown.get(id);
            if (one == null || one.document().dropped()) continue;
            Optional<Integer> released = one.spine().out().map(o -> o.head().number());
            if (view.isReleasedOnly() && released.isEmpty()) continue;
            wanted.put(id, view.isReleasedOnly() ? released.orElseThrow() : one.version());
            seen.put(id, one);
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
