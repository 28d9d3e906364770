package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.FORMER_FILE_NAME;
import static mintshelf.database.schema.Tables.ITEM;
import static mintshelf.database.schema.Tables.SHELF;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.reference.Resolution.Filed;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** Where documents lie, as names in files are looked up. */
@Repository
public class FiledStore {
    private static final int AT_ONCE = 1000;
    /** Documents of one file name that are looked at. */
    private static final int MOST_NAMED = 50;

    private final DSLContext db;
    private final ShelfStore shelves;

    public FiledStore(DSLContext db, ShelfStore shelves) {
        this.db = db;
        this.shelves = shelves;
    }

    /** Where documents with these file names lie, by the names' keys. */
    public Map<String, List<Filed>> named(Collection<String> fileKeys) {
        Map<String, List<Filed>> found = new HashMap<>();
        List<String> keys = List.copyOf(Set.copyOf(fileKeys));
        for (int at = 0; at < keys.size(); at += AT_ONCE) {
            filed(ITEM.FILE_NAME_KEY
                            .in(keys.subList(at, Math.min(keys.size(), at + AT_ONCE)))
                            .and(ITEM.DROPPED_AT.isNull()))
                    .forEach((key, filed) -> found.computeIfAbsent(key, k -> new ArrayList<>())
                            .addAll(filed.subList(0, Math.min(filed.size(), MOST_NAMED))));
        }
        return found;
    }

    /** As {@link #named}, by names that the files had before: what bears one of them now goes before these. */
    public Map<String, List<Filed>> formerlyNamed(Collection<String> fileKeys) {
        Map<String, List<Filed>> found = new HashMap<>();
        if (fileKeys.isEmpty()) return found;
        Map<Long, List<Record>> names = db
                .select(FORMER_FILE_NAME.ITEM, FORMER_FILE_NAME.FILE_NAME, FORMER_FILE_NAME.FILE_NAME_KEY)
                .from(FORMER_FILE_NAME)
                .where(FORMER_FILE_NAME.FILE_NAME_KEY.in(fileKeys))
                .stream()
                .collect(Collectors.groupingBy(r -> r.get(FORMER_FILE_NAME.ITEM)));
        if (names.isEmpty()) return found;
        filed(ITEM.ID.in(names.keySet()).and(ITEM.DROPPED_AT.isNull())).values().stream()
                .flatMap(List::stream)
                .forEach(f -> names.get(f.document())
                        .forEach(n -> found.computeIfAbsent(
                                        n.get(FORMER_FILE_NAME.FILE_NAME_KEY), k -> new ArrayList<>())
                                .add(new Filed(
                                        f.document(),
                                        n.get(FORMER_FILE_NAME.FILE_NAME),
                                        f.shelf(),
                                        f.folders(),
                                        f.library()))));
        return found;
    }

    /** Where a document lies. */
    public Filed filed(long item) {
        return filed(ITEM.ID.eq(item)).values().stream()
                .flatMap(List::stream)
                .findFirst()
                .orElseThrow();
    }

    /** Where documents lie, by id. */
    public Map<Long, Filed> filed(Collection<Long> items) {
        Map<Long, Filed> found = new HashMap<>();
        List<Long> ids = List.copyOf(items);
        for (int at = 0; at < ids.size(); at += AT_ONCE) {
            filed(ITEM.ID.in(ids.subList(at, Math.min(ids.size(), at + AT_ONCE)))).values().stream()
                    .flatMap(List::stream)
                    .forEach(f -> found.put(f.document(), f));
        }
        return found;
    }

    private Map<String, List<Filed>> filed(Condition which) {
        var rows = db.select(ITEM.ID, ITEM.FILE_NAME, ITEM.FILE_NAME_KEY, ITEM.SHELF, ITEM.FOLDER, SHELF.LIBRARY)
                .from(ITEM)
                .join(SHELF)
                .on(SHELF.ID.eq(ITEM.SHELF))
                .where(which)
                .orderBy(ITEM.ID)
                .fetch();
        Map<Long, List<Folder>> paths =
                shelves.pathsUp(rows.stream().map(r -> r.get(ITEM.SHELF)).collect(Collectors.toSet()));
        Map<String, List<Filed>> found = new HashMap<>();
        for (Record row : rows) {
            List<String> folders = new ArrayList<>();
            for (Folder folder : paths.get(row.get(ITEM.FOLDER))) folders.add(0, folder.name());
            found.computeIfAbsent(
                            Optional.ofNullable(row.get(ITEM.FILE_NAME_KEY)).orElse(""), k -> new ArrayList<>())
                    .add(new Filed(
                            row.get(ITEM.ID),
                            row.get(ITEM.FILE_NAME),
                            row.get(ITEM.SHELF),
                            folders,
                            row.get(SHELF.LIBRARY)));
        }
        return found;
    }
}
