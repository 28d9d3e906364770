package mintshelf.app.sight;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.FiledStore;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.reference.Resolution.Filed;
import org.springframework.stereotype.Component;

/** What the shelves have in the places of a desk: a desk lies as the shelves do, the shelf first, with slashes. */
@Component
public class DeskPlaces {
    /** Documents that come to every desk: settings, templates, styles. */
    private static final int MOST_COMING = 2_000;

    private final DocumentStore documents;
    private final FiledStore filed;
    private final ShelfStore shelves;

    public DeskPlaces(DocumentStore documents, FiledStore filed, ShelfStore shelves) {
        this.documents = documents;
        this.filed = filed;
        this.shelves = shelves;
    }

    /** Where a document lies on every desk. */
    public static String path(Seen seen) {
        return Packed.folders(seen.spine()) + seen.document().fileName();
    }

    /**
     * The documents that lie in places on the shelves, by these.
     *
     * @param but documents that are found already
     */
    public Map<String, Long> documentsAt(Collection<String> paths, Set<Long> but) {
        Map<String, List<Filed>> named =
                filed.named(paths.stream().map(p -> FileName.of(p).key()).toList());
        Map<String, Long> places = new LinkedHashMap<>();
        for (String path : paths) {
            String wanted = Texts.key(path);
            named.getOrDefault(FileName.of(path).key(), List.of()).stream()
                    .filter(f -> !but.contains(f.document()))
                    .filter(f -> Texts.key(String.join("/", f.folders()) + "/" + f.fileName())
                            .equals(wanted))
                    .findFirst()
                    .ifPresent(f -> places.put(path, f.document()));
        }
        return places;
    }

    /** Documents that come to a desk because others of their shelf lie on it. */
    public Set<Long> coming(Collection<Seen> there, Collection<String> paths) {
        Set<Long> used =
                there.stream().map(s -> s.document().place().shelf()).collect(Collectors.toCollection(HashSet::new));
        Set<String> top = paths.stream().map(p -> Texts.key(p.split("/", 2)[0])).collect(Collectors.toSet());
        shelves.shelves().stream()
                .filter(s -> top.contains(Texts.key(s.name())))
                .forEach(s -> used.add(s.id()));
        return new HashSet<>(documents.lyingIn(shelves.onEveryDesk(used), MOST_COMING));
    }

    /** The innermost folders, of shelves that the actor sees, in which files lie; none for one that lies beside the shelves. */
    public Map<String, Folder> folders(Actor actor, Collection<String> paths) {
        if (paths.isEmpty()) return Map.of();
        Map<Long, String> names = new HashMap<>();
        for (ShelfStore.Shelf shelf : shelves.shelves()) {
            if (actor.access().enters(shelf.id())) names.put(shelf.id(), shelf.name());
        }
        Map<String, Folder> byPath = new HashMap<>();
        for (List<Folder> up : shelves.pathsUp(names.keySet()).values()) {
            StringBuilder path = new StringBuilder(names.get(up.get(0).shelf()));
            for (int i = up.size() - 2; i >= 0; i--)
                path.append('/').append(up.get(i).name());
            byPath.put(Texts.key(path.toString()), up.get(0));
        }
        Map<String, Folder> found = new HashMap<>();
        for (String path : paths) deepest(byPath, path).ifPresent(f -> found.put(path, f));
        return found;
    }

    private static Optional<Folder> deepest(Map<String, Folder> folders, String path) {
        String in = Texts.key(path);
        for (int slash = in.lastIndexOf('/'); slash > 0; slash = in.lastIndexOf('/', slash - 1)) {
            Folder folder = folders.get(in.substring(0, slash));
            if (folder != null) return Optional.of(folder);
        }
        return Optional.empty();
    }
}
