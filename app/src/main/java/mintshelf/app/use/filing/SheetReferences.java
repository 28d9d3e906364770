package mintshelf.app.use.filing;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.document.FileName;
import mintshelf.core.reference.Resolution;
import mintshelf.core.reference.Resolution.Filed;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Service;

/** What the files of a filing sheet refer to, before they are filed: others of the sheet, what is on the shelves, what is missing. */
@Service
public class SheetReferences {
    /** Numbers and names that are said; the others are counted. */
    private static final int SAID = 4;

    private final References references;
    private final ShelfStore shelves;
    private final Sight sight;

    public SheetReferences(References references, ShelfStore shelves, Sight sight) {
        this.references = references;
        this.shelves = shelves;
        this.sight = sight;
    }

    /**
     * What a file refers to.
     *
     * @param here files that are filed on the same sheet
     * @param there numbers of documents that are on the shelves
     * @param missing names that nothing bears, or that several do
     */
    public record Refers(int all, List<String> here, List<String> there, List<String> missing) {
        /** The first of some names, the others counted. */
        public static String some(List<String> names) {
            String first = String.join(", ", names.subList(0, Math.min(SAID, names.size())));
            return names.size() > SAID ? first + " and " + (names.size() - SAID) + " more" : first;
        }
    }

    /** What the file of a row refers to; O(its bytes + rows). */
    public Refers of(Actor actor, Map<Row, Upload> sheet, Row row) {
        Upload file = sheet.get(row);
        List<Written> written = references.read(file);
        Set<String> ticked = sheet.entrySet().stream()
                .filter(e -> e.getKey().isDocument())
                .map(e -> FileName.of(e.getValue().fileName()).key())
                .collect(Collectors.toSet());
        Map<String, List<Filed>> lying = references.lying(
                written.stream().map(w -> FileName.of(w.path()).key()).toList());
        Map<Long, Seen> seen = sight.of(
                actor,
                lying.values().stream()
                        .flatMap(List::stream)
                        .map(Filed::document)
                        .toList());
        Optional<Folder> folder = shelves.folder(row.folder());
        Filed parent = new Filed(0, file.fileName(), folder.map(Folder::shelf).orElse(0L), folders(folder, row), false);
        List<String> here = new ArrayList<>();
        List<String> there = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        for (Written one : written) {
            FileName name = FileName.of(one.path());
            List<Filed> known = lying.getOrDefault(name.key(), List.of()).stream()
                    .filter(f -> seen.containsKey(f.document()))
                    .toList();
            if (ticked.contains(name.key())) here.add(name.name());
            else if (Resolution.of(one.path(), parent, known, Optional.empty()) instanceof Resolution.Found found)
                there.add(seen.get(found.document()).document().number());
            else missing.add(name.name());
        }
        return new Refers(written.size(), here, there, missing);
    }

    /** From the shelf down to where it is filed. */
    private List<String> folders(Optional<Folder> folder, Row row) {
        List<String> names = new ArrayList<>();
        folder.ifPresent(f -> shelves.pathsUp(Set.of(f.shelf()))
                .getOrDefault(f.id(), List.of())
                .forEach(above -> names.add(0, above.name())));
        if (!row.path().isEmpty()) names.addAll(List.of(row.path().split("/")));
        return names;
    }
}
