package mintshelf.app.use.desk;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.desk.DeskStore;
import mintshelf.app.store.desk.DeskStore.Brought;
import mintshelf.app.store.desk.DeskStore.Desk;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.structure.FiledStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.desk.DeskRules;
import mintshelf.core.desk.DeskRules.Held;
import mintshelf.core.desk.DeskRules.OnShelf;
import mintshelf.core.desk.DeskRules.Standing;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.reference.Resolution.Filed;
import org.springframework.stereotype.Service;

/** Desks: what was brought where, and how what lies there stands to the shelf. */
@Service
public class Desks {
    /** Files of one desk. */
    public static final int MOST = 100_000;

    /** Desks of one person: machines that somebody works on, with room for some that were set up anew. */
    private static final int MOST_DESKS = 50;

    /** Documents that come to every desk: settings, templates, styles. */
    private static final int MOST_COMING = 2_000;

    private final Sight sight;
    private final DocumentStore documents;
    private final DeskStore desks;
    private final VersionStore versions;
    private final FiledStore filed;
    private final ListStore lists;
    private final ShelfStore shelves;
    private final UnitOfWork unit;
    private final Clock clock;

    public Desks(
            Sight sight,
            DocumentStore documents,
            DeskStore desks,
            VersionStore versions,
            FiledStore filed,
            ListStore lists,
            ShelfStore shelves,
            UnitOfWork unit,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.desks = desks;
        this.versions = versions;
        this.filed = filed;
        this.lists = lists;
        this.shelves = shelves;
        this.unit = unit;
        this.clock = clock;
    }

    public List<Desk> of(Actor actor) {
        return desks.of(actor.person());
    }

    /** The actor's desk of a name; it is made where there is none. */
    public Desk open(Actor actor, String name) {
        String clean = Texts.required("The desk's name", name, 100).orElseThrow(Refused::new);
        boolean known = desks.desk(actor.person(), clean).isPresent();
        if (!known && desks.of(actor.person()).size() >= MOST_DESKS) {
            throw Refused.because(
                    "desk.many",
                    "You have " + MOST_DESKS + " desks already.",
                    "Remove one that you do not work on any more.");
        }
        return unit.run(() -> desks.add(actor.person(), clean, clock.instant()));
    }

    private Desk mine(Actor actor, String name) {
        return desks.desk(actor.person(), name).orElseThrow(NotThere::new);
    }

    /** A desk is given up: its record goes; the files stay where they lie. */
    public void remove(Actor actor, String name) {
        unit.run(() -> desks.remove(mine(actor, name).id()));
    }

    /** A file that lies on a desk: its path with slashes, the shelf first, and the hash of its bytes. */
    public record OnDisk(String path, ContentHash content) {}

    /**
     * How a file stands.
     *
     * @param path where it lies or belongs
     * @param seen its document; empty for a file that is only on the desk
     * @param base number of the version that was brought; 0 where none was
     * @param belongs where the shelf has it, when that is elsewhere
     * @param hold the actor's own one; 0 where there is none
     * @param goesTo where a file that is only on the desk would be filed, by the folders in which it lies
     * @param comes whether it lies in a folder that comes to every desk of its shelf
     */
    public record DeskLine(
            String path,
            Optional<Seen> seen,
            Standing standing,
            int base,
            Optional<String> belongs,
            long hold,
            Optional<Folder> goesTo,
            boolean comes) {}

    /**
     * How everything on a desk stands. A few statements, whatever the number of files.
     *
     * @param disk what lies there now
     */
    public List<DeskLine> status(Actor actor, String name, Collection<OnDisk> disk) {
        if (disk.size() > MOST) {
            throw Refused.because(
                    "desk.many", "A desk of more than " + MOST + " files is none.", "Choose a smaller folder.");
        }
        Desk desk = mine(actor, name);
        unit.run(() -> desks.seen(desk.id(), clock.instant()));
        Map<Long, Brought> record = desks.files(desk.id());
        Map<String, Long> byPath = new HashMap<>();
        record.forEach((item, b) -> byPath.put(Texts.key(b.path()), item));
        Map<Long, OnDisk> found = new LinkedHashMap<>();
        List<OnDisk> loose = new ArrayList<>();
        for (OnDisk file : disk) {
            Long item = byPath.get(Texts.key(file.path()));
            if (item == null) loose.add(file);
            else found.put(item, file);
        }
        Map<OnDisk, Long> places = places(loose, found.keySet());
        places.forEach((file, item) -> found.put(item, file));
        loose.removeAll(places.keySet());
        Set<Long> items = new HashSet<>(found.keySet());
        items.addAll(record.keySet());
        lists.heldBy(actor.person(), 500).forEach(items::add);
        Map<Long, Seen> seen = new LinkedHashMap<>(sight.of(actor, items));
        Set<Long> comes = coming(seen.values(), disk);
        Set<Long> more = new HashSet<>(comes);
        more.removeAll(seen.keySet());
        if (!more.isEmpty()) seen.putAll(sight.of(actor, more));
        // A part without a file comes to no desk; a file that happens to be called as one is nobody's.
        seen.values().stream().filter(s -> s.document().part()).toList().forEach(s -> {
            long part = s.spine().id();
            seen.remove(part);
            Optional.ofNullable(found.remove(part)).ifPresent(loose::add);
        });
        Map<Long, ContentHash> hashes = new HashMap<>();
        // Where the bytes are those that were brought, or the latest, no older version is looked for.
        found.forEach((item, file) -> {
            Brought brought = record.get(item);
            boolean known = brought != null && brought.content().equals(file.content());
            Seen s = seen.get(item);
            boolean even = s != null && s.spine().content().hash().equals(file.content());
            if (!known && !even) hashes.put(item, file.content());
        });
        Map<Long, Integer> versions = desks.versionsWith(hashes);
        List<DeskLine> lines = new ArrayList<>();
        seen.forEach((item, s) ->
                lines.add(line(actor, s, record.get(item), found.get(item), versions.get(item), comes.contains(item))));
        Map<String, Folder> folders = loose.isEmpty() ? Map.of() : folders(actor);
        for (OnDisk file : loose) {
            lines.add(new DeskLine(
                    file.path(),
                    Optional.empty(),
                    DeskRules.standing(Optional.empty(), Optional.of(file.content()), Optional.empty()),
                    0,
                    Optional.empty(),
                    0,
                    deepest(folders, file.path()),
                    false));
        }
        lines.sort(Comparator.comparing(DeskLine::path));
        return lines;
    }

    /** Documents that come to a desk because others of their shelf lie on it. */
    private Set<Long> coming(Collection<Seen> there, Collection<OnDisk> disk) {
        Set<Long> used =
                there.stream().map(s -> s.document().place().shelf()).collect(Collectors.toCollection(HashSet::new));
        Set<String> top =
                disk.stream().map(f -> Texts.key(f.path().split("/", 2)[0])).collect(Collectors.toSet());
        shelves.shelves().stream()
                .filter(s -> top.contains(Texts.key(s.name())))
                .forEach(s -> used.add(s.id()));
        return new HashSet<>(documents.lyingIn(shelves.onEveryDesk(used), MOST_COMING));
    }

    private DeskLine line(Actor actor, Seen seen, Brought record, OnDisk file, Integer with, boolean comes) {
        Document d = seen.document();
        // The latest version's content came with the document; only readers of a document that is being revised cost a
        // statement.
        ContentHash content = seen.version() == d.head().number()
                ? seen.spine().content().hash()
                : versions.version(d.id(), seen.version())
                        .orElseThrow()
                        .content()
                        .hash();
        Held held = d.holder()
                .map(h -> h.person() == actor.person() ? Held.BY_ME : Held.BY_ANOTHER)
                .orElse(Held.BY_NOBODY);
        boolean canStart = d.pending().isEmpty() && d.released().isPresent();
        OnShelf shelf = new OnShelf(
                seen.version(),
                content,
                Optional.ofNullable(with).filter(n -> n < seen.version()),
                held,
                HoldRules.checkOut(d, actor.access()).isEmpty(),
                canStart);
        Optional<DeskRules.Brought> brought =
                Optional.ofNullable(record).map(b -> new DeskRules.Brought(b.number(), b.content(), b.onPurpose()));
        String belongs = path(seen);
        String path = file != null ? file.path() : belongs;
        return new DeskLine(
                path,
                Optional.of(seen),
                DeskRules.standing(brought, Optional.ofNullable(file).map(OnDisk::content), Optional.of(shelf)),
                record == null ? 0 : record.number(),
                Texts.key(path).equals(Texts.key(belongs)) ? Optional.empty() : Optional.of(belongs),
                d.holder()
                        .filter(h -> h.person() == actor.person())
                        .map(Holder::hold)
                        .orElse(0L),
                Optional.empty(),
                comes);
    }

    /** Folders of the shelves that the actor sees, by their paths on a desk. */
    private Map<String, Folder> folders(Actor actor) {
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
        return byPath;
    }

    /** The innermost folder in which a file lies; none for a file that lies beside the shelves. */
    private static Optional<Folder> deepest(Map<String, Folder> folders, String path) {
        String in = Texts.key(path);
        for (int slash = in.lastIndexOf('/'); slash > 0; slash = in.lastIndexOf('/', slash - 1)) {
            Folder folder = folders.get(in.substring(0, slash));
            if (folder != null) return Optional.of(folder);
        }
        return Optional.empty();
    }

    /** Where a document lies on every desk. */
    public static String path(Seen seen) {
        return Packed.folders(seen.spine()) + seen.document().fileName();
    }

    /** Files that no record knows, by the documents that lie in their places on the shelves. */
    private Map<OnDisk, Long> places(List<OnDisk> loose, Set<Long> known) {
        Map<String, List<Filed>> named =
                filed.named(loose.stream().map(f -> FileName.of(f.path()).key()).toList());
        Map<OnDisk, Long> places = new LinkedHashMap<>();
        for (OnDisk file : loose) {
            String wanted = Texts.key(file.path());
            named.getOrDefault(FileName.of(file.path()).key(), List.of()).stream()
                    .filter(f -> !known.contains(f.document()))
                    .filter(f -> Texts.key(String.join("/", f.folders()) + "/" + f.fileName())
                            .equals(wanted))
                    .findFirst()
                    .ifPresent(f -> places.put(file, f.document()));
        }
        return places;
    }

    /** A version that was brought to a desk. */
    public record Bring(long item, int version, String path, boolean onPurpose) {}

    /** Notes what was brought; the desk did write the files. */
    public void brought(Actor actor, String name, Collection<Bring> files) {
        Desk desk = mine(actor, name);
        unit.run(() -> files.forEach(f -> {
            Seen seen = sight.of(actor, f.item());
            VersionRow version = versions.version(f.item(), f.version()).orElseThrow(NotThere::new);
            if (!seen.all() && seen.version() != f.version()) throw new NotThere();
            desks.brought(desk.id(), f.item(), version.id(), f.path(), f.onPurpose(), clock.instant());
        }));
    }

    /**
     * Files of a desk were checked in and lie there as they are on the shelf now: the record follows.
     *
     * @param became what became of them; a stray leaves the record as it is
     */
    public void checkedIn(Actor actor, String name, Collection<Became> became) {
        Map<Long, Long> versions = new HashMap<>();
        for (Became b : became) if (b.fate() != Became.Fate.STRAY) versions.put(b.document(), b.version());
        if (name.isBlank() || versions.isEmpty()) return;
        desks.desk(actor.person(), name)
                .ifPresent(desk -> unit.run(() -> {
                    Map<Long, Brought> record = desks.files(desk.id());
                    sight.of(actor, versions.keySet()).forEach((item, seen) -> {
                        if (!seen.all()) return;
                        String path = Optional.ofNullable(record.get(item))
                                .map(Brought::path)
                                .orElse(path(seen));
                        desks.brought(desk.id(), item, versions.getOrDefault(item, 0L), path, false, clock.instant());
                    });
                }));
    }

    public void cleared(Actor actor, String name, Collection<Long> items) {
        Desk desk = mine(actor, name);
        unit.run(() -> desks.cleared(desk.id(), items));
    }

    /** Ids of the versions that a desk has of documents: what its author worked with. */
    public Map<Long, Long> worked(Actor actor, String name) {
        Map<Long, Long> worked = new HashMap<>();
        if (name.isBlank()) return worked;
        desks.desk(actor.person(), name)
                .ifPresent(d -> desks.files(d.id()).forEach((item, b) -> worked.put(item, b.version())));
        return worked;
    }
}
