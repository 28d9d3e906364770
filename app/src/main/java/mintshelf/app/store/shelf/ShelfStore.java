package mintshelf.app.store.shelf;

import static mintshelf.database.schema.Tables.FOLDER;
import static mintshelf.database.schema.Tables.SHELF;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Times;
import mintshelf.core.base.Texts;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** Shelves and their folders. */
@Repository
public class ShelfStore {
    private final DSLContext db;
    private final Prepared folders = new Prepared(
            (db, shelves) -> db.select(FOLDER.fields()).from(FOLDER).where(FOLDER.SHELF.in(shelves)));

    public ShelfStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A shelf.
     *
     * @param library whether it serves the others: what files refer to by name is looked for on it too
     * @param hidesRevising whether readers are not told that what is released on it is being revised
     */
    public record Shelf(long id, String name, String note, boolean library, boolean hidesRevising) {}

    /**
     * A folder.
     *
     * @param parent empty for a shelf's root
     * @param ordinal place in the shelf's tree, top down
     */
    public record Folder(long id, long shelf, OptionalLong parent, String name, int depth, int ordinal) {
        public boolean isRoot() {
            return parent.isEmpty();
        }
    }

    public List<Shelf> shelves() {
        return db.selectFrom(SHELF).orderBy(SHELF.NAME).fetch(ShelfStore::shelf);
    }

    public Optional<Shelf> shelf(long id) {
        return db.selectFrom(SHELF).where(SHELF.ID.eq(id)).fetchOptional().map(ShelfStore::shelf);
    }

    private static Shelf shelf(Record row) {
        return new Shelf(
                row.get(SHELF.ID),
                row.get(SHELF.NAME),
                row.get(SHELF.NOTE),
                row.get(SHELF.LIBRARY),
                row.get(SHELF.HIDES_REVISING));
    }

    public void hideRevising(long shelf, boolean hides) {
        db.update(SHELF)
                .set(SHELF.HIDES_REVISING, hides)
                .where(SHELF.ID.eq(shelf))
                .execute();
    }

    /** Adds a shelf with its root folder. */
    public long add(String name, String note, boolean library, Instant now) {
        long shelf = db.insertInto(SHELF)
                .set(SHELF.NAME, name)
                .set(SHELF.NAME_KEY, Texts.key(name))
                .set(SHELF.NOTE, note)
                .set(SHELF.LIBRARY, library)
                .set(SHELF.CREATED_AT, Times.utc(now))
                .returningResult(SHELF.ID)
                .fetchSingle()
                .value1();
        db.insertInto(FOLDER)
                .set(FOLDER.SHELF, shelf)
                .set(FOLDER.NAME, name)
                .set(FOLDER.NAME_KEY, Texts.key(name))
                .set(FOLDER.ROOT_MARK, (short) 1)
                .set(FOLDER.DEPTH, 0)
                .set(FOLDER.ORDINAL, 0)
                .execute();
        return shelf;
    }

    /** Adds a folder below {@code parent} and orders the shelf's folders anew, by name on each level. */
    public long addFolder(Folder parent, String name) {
        lock(parent.shelf());
        long id = insert(parent, name);
        order(parent.shelf());
        return id;
    }

    /** Gives a folder another name, and orders the shelf's folders anew. */
    public void renameFolder(Folder folder, String name) {
        lock(folder.shelf());
        db.update(FOLDER)
                .set(FOLDER.NAME, name)
                .set(FOLDER.NAME_KEY, Texts.key(name))
                .where(FOLDER.ID.eq(folder.id()))
                .execute();
        order(folder.shelf());
    }

    private void lock(long shelf) {
        db.select(SHELF.ID).from(SHELF).where(SHELF.ID.eq(shelf)).forUpdate().fetch();
    }

    private long insert(Folder parent, String name) {
        return db.insertInto(FOLDER)
                .set(FOLDER.SHELF, parent.shelf())
                .set(FOLDER.PARENT, parent.id())
                .set(FOLDER.NAME, name)
                .set(FOLDER.NAME_KEY, Texts.key(name))
                .set(FOLDER.DEPTH, parent.depth() + 1)
                .set(FOLDER.ORDINAL, 0)
                .returningResult(FOLDER.ID)
                .fetchSingle()
                .value1();
    }

    private void order(long shelf) {
        List<Folder> all = folders(shelf);
        Map<Long, List<Folder>> below = new HashMap<>();
        for (Folder folder : all) {
            if (!folder.isRoot()) {
                below.computeIfAbsent(folder.parent().getAsLong(), p -> new ArrayList<>())
                        .add(folder);
            }
        }
        below.values().forEach(list -> list.sort((a, b) -> Texts.key(a.name()).compareTo(Texts.key(b.name()))));
        List<Folder> ordered = new ArrayList<>();
        all.stream().filter(Folder::isRoot).forEach(root -> walk(root, below, ordered));
        for (int i = 0; i < ordered.size(); i++) {
            if (ordered.get(i).ordinal() == i) continue;
            db.update(FOLDER)
                    .set(FOLDER.ORDINAL, i)
                    .where(FOLDER.ID.eq(ordered.get(i).id()))
                    .execute();
        }
    }

    /**
     * Finds folders by their paths below one, and makes those that are not there; all are ordered once.
     *
     * @param paths with slashes; empty for the folder itself
     * @param make whether what is not there is made; else it is left out of the answer
     */
    public Map<String, Folder> below(Folder top, Collection<String> paths, boolean make) {
        if (make) lock(top.shelf());
        Map<String, Folder> known = new HashMap<>();
        for (Folder folder : folders(top.shelf())) {
            if (folder.parent().isPresent()) {
                known.put(folder.parent().getAsLong() + "/" + Texts.key(folder.name()), folder);
            }
        }
        Map<String, Folder> found = new HashMap<>();
        boolean made = false;
        for (String path : paths) {
            Folder at = top;
            for (String name : path.split("/")) {
                if (name.isEmpty() || at == null) continue;
                Folder above = at;
                String key = above.id() + "/" + Texts.key(name);
                at = known.get(key);
                if (at == null && make) {
                    long id = insert(above, name);
                    at = new Folder(id, top.shelf(), OptionalLong.of(above.id()), name, above.depth() + 1, 0);
                    known.put(key, at);
                    made = true;
                }
            }
            if (at != null) found.put(path, at);
        }
        if (made) order(top.shelf());
        return found;
    }

    private static void walk(Folder folder, Map<Long, List<Folder>> below, List<Folder> ordered) {
        ordered.add(folder);
        below.getOrDefault(folder.id(), List.of()).forEach(child -> walk(child, below, ordered));
    }

    /** The folders of a shelf in their order. */
    public List<Folder> folders(long shelf) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.SHELF.eq(shelf))
                .orderBy(FOLDER.ORDINAL)
                .fetch(ShelfStore::folder);
    }

    /** Says whether what lies in a folder, and below it, comes to every desk of its shelf. */
    public void everyDesk(long folder, boolean comes) {
        db.update(FOLDER)
                .set(FOLDER.EVERY_DESK, comes)
                .where(FOLDER.ID.eq(folder))
                .execute();
    }

    /** Folders of shelves that come to every desk, with those below them. */
    public Set<Long> onEveryDesk(Collection<Long> shelves) {
        if (shelves.isEmpty()) return Set.of();
        Set<Long> marked = db.select(FOLDER.ID)
                .from(FOLDER)
                .where(FOLDER.SHELF.in(shelves), FOLDER.EVERY_DESK.isTrue())
                .fetchSet(FOLDER.ID);
        if (marked.isEmpty()) return marked;
        Set<Long> all = new HashSet<>();
        pathsUp(shelves).forEach((id, up) -> {
            if (up.stream().anyMatch(f -> marked.contains(f.id()))) all.add(id);
        });
        return all;
    }

    public Optional<Folder> folder(long id) {
        return db.selectFrom(FOLDER).where(FOLDER.ID.eq(id)).fetchOptional().map(ShelfStore::folder);
    }

    public Folder root(long shelf) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.SHELF.eq(shelf), FOLDER.ROOT_MARK.eq((short) 1))
                .fetchSingle(ShelfStore::folder);
    }

    private static Folder folder(Record row) {
        Long parent = row.get(FOLDER.PARENT);
        return new Folder(
                row.get(FOLDER.ID),
                row.get(FOLDER.SHELF),
                parent == null ? OptionalLong.empty() : OptionalLong.of(parent),
                row.get(FOLDER.NAME),
                row.get(FOLDER.DEPTH),
                row.get(FOLDER.ORDINAL));
    }

    /** For each folder of the shelves: itself and the folders above it, the lowest first; one statement. */
    public Map<Long, List<Folder>> pathsUp(Collection<Long> shelves) {
        Map<Long, Folder> all = new HashMap<>();
        for (Record row : folders.fetch(db, shelves)) all.put(row.get(FOLDER.ID), folder(row));
        Map<Long, List<Folder>> paths = new HashMap<>();
        all.forEach((id, folder) -> {
            List<Folder> path = new ArrayList<>();
            Folder at = folder;
            while (at != null) {
                path.add(at);
                at = at.parent().isPresent() ? all.get(at.parent().getAsLong()) : null;
            }
            paths.put(id, path);
        });
        return paths;
    }

    /** The folders of shelves below their roots. */
    public List<Folder> folders(Collection<Long> shelves) {
        return folders.fetch(db, shelves).stream()
                .map(ShelfStore::folder)
                .filter(f -> !f.isRoot())
                .toList();
    }
}
