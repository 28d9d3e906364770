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
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.DeskPlaces;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.desk.DeskStore;
import mintshelf.app.store.desk.DeskStore.Brought;
import mintshelf.app.store.desk.DeskStore.Desk;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import mintshelf.core.desk.DeskRules;
import mintshelf.core.desk.DeskRules.Held;
import mintshelf.core.desk.DeskRules.OnShelf;
import mintshelf.core.desk.DeskRules.Standing;
import mintshelf.core.document.Document;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Desks: what was brought where, and how what lies there stands to the shelf. */
@Service
public class Desks {
    /** Files of one desk. */
    public static final int MOST = 100_000;

    /** Desks of one person: machines that somebody works on, with room for some that were set up anew. */
    private static final int MOST_DESKS = 50;

    private final Sight sight;
    private final DeskStore desks;
    private final VersionStore versions;
    private final ListStore lists;
    private final DeskPlaces places;
    private final Trials trials;
    private final UnitOfWork unit;
    private final Clock clock;

    public Desks(
            Sight sight,
            DeskStore desks,
            VersionStore versions,
            ListStore lists,
            DeskPlaces places,
            Trials trials,
            UnitOfWork unit,
            Clock clock) {
        this.sight = sight;
        this.desks = desks;
        this.versions = versions;
        this.lists = lists;
        this.places = places;
        this.trials = trials;
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
     * @param seen its document, on the line on which the desk works; empty for a file that is only on the desk
     * @param trial id of the trial on whose line the desk works with it; empty for its main line
     * @param base the version that was brought; empty where none was
     * @param belongs where the shelf has it, when that is elsewhere
     * @param hold the actor's own one; 0 where there is none
     * @param goesTo where a file that is only on the desk would be filed, by the folders in which it lies
     * @param comes whether it lies in a folder that comes to every desk of its shelf
     */
    public record DeskLine(
            String path,
            Optional<Seen> seen,
            Standing standing,
            Optional<Long> trial,
            Optional<VersionName> base,
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
        Map<String, Long> there = places.documentsAt(paths(loose), found.keySet());
        loose.removeIf(file -> {
            Long item = there.get(file.path());
            if (item != null) found.put(item, file);
            return item != null;
        });
        Set<Long> items = new HashSet<>(found.keySet());
        items.addAll(record.keySet());
        lists.heldBy(actor.person(), 500).forEach(items::add);
        Map<Long, Seen> seen = new LinkedHashMap<>(sight.of(actor, items));
        Set<Long> comes = places.coming(seen.values(), paths(disk));
        Set<Long> more = new HashSet<>(comes);
        more.removeAll(seen.keySet());
        if (!more.isEmpty()) seen.putAll(sight.of(actor, more));
        // A part without a file comes to no desk; a file that happens to be called as one is nobody's.
        seen.values().stream().filter(s -> s.document().part()).toList().forEach(s -> {
            long part = s.spine().id();
            seen.remove(part);
            Optional.ofNullable(found.remove(part)).ifPresent(loose::add);
        });
        // What the desk has of a trial under way stands to the trial's line; of one that is over, to the main one
        // again.
        Map<Long, Long> tried = new HashMap<>();
        record.forEach((item, b) -> b.trialLine().ifPresent(line -> tried.put(item, line)));
        Map<Long, Long> onTrial = new HashMap<>();
        trials.onLines(seen, tried).forEach((item, t) -> {
            seen.put(item, t.tried());
            onTrial.put(item, t.line().trial());
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
        Map<Long, VersionName> versions = desks.versionsWith(hashes, tried.values());
        List<DeskLine> lines = new ArrayList<>();
        seen.forEach((item, s) -> {
            OnShelf shelf = onShelf(actor, s, versions.get(item));
            Optional<Long> trial = Optional.ofNullable(onTrial.get(item));
            lines.add(line(actor, s, shelf, trial, record.get(item), found.get(item), comes.contains(item)));
        });
        Map<String, Folder> folders = places.folders(actor, paths(loose));
        for (OnDisk file : loose) {
            lines.add(new DeskLine(
                    file.path(),
                    Optional.empty(),
                    DeskRules.standing(Optional.empty(), Optional.of(file.content()), Optional.empty()),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    0,
                    Optional.ofNullable(folders.get(file.path())),
                    false));
        }
        lines.sort(Comparator.comparing(DeskLine::path));
        return lines;
    }

    private static List<String> paths(Collection<OnDisk> files) {
        return files.stream().map(OnDisk::path).toList();
    }

    private OnShelf onShelf(Actor actor, Seen seen, VersionName with) {
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
        return new OnShelf(
                seen.name(),
                content,
                Optional.ofNullable(with).filter(n -> d.isTried() || n.number() < seen.version()),
                held,
                HoldRules.checkOut(d, actor.access()).isEmpty(),
                canStart);
    }

    private static DeskLine line(
            Actor actor, Seen seen, OnShelf shelf, Optional<Long> trial, Brought record, OnDisk file, boolean comes) {
        Optional<DeskRules.Brought> brought =
                Optional.ofNullable(record).map(b -> new DeskRules.Brought(b.name(), b.content(), b.onPurpose()));
        String belongs = DeskPlaces.path(seen);
        String path = file != null ? file.path() : belongs;
        return new DeskLine(
                path,
                Optional.of(seen),
                DeskRules.standing(brought, Optional.ofNullable(file).map(OnDisk::content), Optional.of(shelf)),
                trial,
                Optional.ofNullable(record).map(Brought::name),
                Texts.key(path).equals(Texts.key(belongs)) ? Optional.empty() : Optional.of(belongs),
                seen.document()
                        .holder()
                        .filter(h -> h.person() == actor.person())
                        .map(Holder::hold)
                        .orElse(0L),
                Optional.empty(),
                comes);
    }

    /**
     * A version that was brought to a desk.
     *
     * @param trial number of the trial on whose line the desk works from now on; 0 for that of the version
     */
    public record Bring(long item, VersionName version, int trial, String path, boolean onPurpose) {}

    /** Notes what was brought; the desk did write the files. */
    public void brought(Actor actor, String name, Collection<Bring> files) {
        Desk desk = mine(actor, name);
        unit.run(() -> files.forEach(f -> {
            Seen seen = sight.of(actor, f.item());
            VersionRow version = versions.version(f.item(), f.version()).orElseThrow(NotThere::new);
            if (!seen.all() && !seen.name().equals(f.version())) throw new NotThere();
            Optional<Long> on = f.trial() == 0
                    ? Optional.empty()
                    : Optional.of(trials.onTrial(seen, f.trial())
                            .orElseThrow(NotThere::new)
                            .line()
                            .id());
            desks.brought(desk.id(), f.item(), version.id(), on, f.path(), f.onPurpose(), clock.instant());
        }));
    }

    /**
     * Files of a desk were checked in and lie there as they are on the shelf now: the record follows.
     *
     * @param became what became of them; a stray leaves the record as it is
     */
    public void checkedIn(Actor actor, String name, Collection<Became> became) {
        Map<Long, Became> lies = new HashMap<>();
        for (Became b : became) if (b.fate() != Became.Fate.STRAY) lies.put(b.document(), b);
        if (name.isBlank() || lies.isEmpty()) return;
        desks.desk(actor.person(), name)
                .ifPresent(desk -> unit.run(() -> {
                    Map<Long, Brought> record = desks.files(desk.id());
                    sight.of(actor, lies.keySet()).forEach((item, seen) -> {
                        if (!seen.all()) return;
                        Optional<Brought> before = Optional.ofNullable(record.get(item));
                        Became b = Optional.ofNullable(lies.get(item)).orElseThrow();
                        // What did not change on the line of a trial may be the version at which that begins.
                        Optional<Long> on = b.made() ? Optional.empty() : before.flatMap(Brought::trialLine);
                        String path = before.map(Brought::path).orElseGet(() -> DeskPlaces.path(seen));
                        desks.brought(desk.id(), item, b.version(), on, path, false, clock.instant());
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
