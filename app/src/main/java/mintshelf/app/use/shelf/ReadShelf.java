package mintshelf.app.use.shelf;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Supplier;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.ListStore.Filter;
import mintshelf.app.store.document.ListStore.Order;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.shelf.ShelfStore.Shelf;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.revision.StageClass;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Shelves, their folders and their documents, as far as a person sees them. */
@Service
public class ReadShelf {
    private final ShelfStore shelves;
    private final ListStore lists;
    private final RoundStore rounds;
    private final RoundSight waiting;
    private final Sight sight;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public ReadShelf(
            ShelfStore shelves,
            ListStore lists,
            RoundStore rounds,
            RoundSight waiting,
            Sight sight,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.shelves = shelves;
        this.lists = lists;
        this.rounds = rounds;
        this.waiting = waiting;
        this.sight = sight;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Whether what lies in a folder comes to every desk of its shelf. */
    public boolean isOnEveryDesk(long shelf, long folder) {
        return shelves.onEveryDesk(List.of(shelf)).contains(folder);
    }

    /** A shelf with the number of documents that the person sees on it. */
    public record Counted(Shelf shelf, int documents) {}

    /**
     * A shelf's page without its rows.
     *
     * @param inFolder number of documents by folder; asked of the database when a heading is shown
     * @param counts by filter; empty for more rows of a page that is there
     */
    public record View(
            Shelf shelf,
            List<Folder> folders,
            Supplier<Map<Long, Integer>> inFolder,
            Map<Filter, Integer> counts,
            boolean mayFile,
            boolean mayKeep) {
        /** The folder that holds what lies in none. */
        public long top() {
            return folders.stream()
                    .filter(Folder::isRoot)
                    .findFirst()
                    .orElseThrow()
                    .id();
        }
    }

    /** The shelves on which the person has any grant. */
    public List<Counted> shelves(Actor actor) {
        Map<Long, Integer> counts = lists.countsByShelf(actor.access());
        return shelves.shelves().stream()
                .filter(s -> actor.access().enters(s.id()))
                .map(s -> new Counted(s, counts.getOrDefault(s.id(), 0)))
                .toList();
    }

    /** @param counted whether the filters' counts are shown */
    public View shelf(Actor actor, long id, Filter filter, boolean counted) {
        Shelf shelf = shelves.shelf(id).filter(s -> actor.access().enters(id)).orElseThrow(NotThere::new);
        return new View(
                shelf,
                shelves.folders(id),
                () -> lists.countsByFolder(id, actor.access(), filter),
                counted ? lists.counts(id, actor.access()) : Map.of(),
                actor.access().mayOn(Right.FILE, id, shelf.library()),
                actor.access().mayOn(Right.KEEP_SHELF, id, shelf.library()));
    }

    /** A page of rows of a shelf that was seen, behind the document {@code after}. */
    public List<Seen> rows(
            Actor actor, View view, Order order, Filter filter, OptionalLong folder, OptionalLong after, int most) {
        List<Long> ids = lists.ofShelf(
                view.shelf().id(),
                actor.access(),
                order,
                filter,
                folder,
                after,
                view.folders().stream().map(Folder::id).toList(),
                most);
        return List.copyOf(sight.of(actor, ids).values());
    }

    /** Those of the rows that came back from review and were not sent again; of rows whose work the actor sees. */
    public Set<Long> returned(List<Seen> rows) {
        return rounds.returned(rows.stream()
                .filter(s -> s.all()
                        && s.pending()
                                .filter(r -> r.stage().stageClass() == StageClass.PREPARING)
                                .isPresent())
                .map(s -> s.spine().id())
                .toList());
    }

    /** The documents that wait for the actor's signature; one statement for who cannot sign. */
    public List<Long> toSign(Actor actor) {
        return waiting.waitingFor(actor).stream()
                .flatMap(v -> v.lines().stream())
                .map(l -> l.item().item())
                .toList();
    }

    /** A document's row in a list, as it stands now. */
    public record RowNow(Seen seen, List<Long> returned, List<Long> toSign) {}

    public RowNow row(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        return new RowNow(seen, List.copyOf(returned(List.of(seen))), toSign(actor));
    }

    public long addShelf(Actor actor, String name, String note) {
        return addShelf(actor, name, note, false);
    }

    /** @param library whether it serves the other shelves */
    public long addShelf(Actor actor, String name, String note, boolean library) {
        if (!actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES)) {
            throw Refused.because(
                    "access.missing", "Only who keeps the house rules adds shelves.", "Ask a data manager.");
        }
        String clean = FileName.folder("The name", name).orElseThrow(Refused::new);
        String cleanNote = Texts.optional("The note", note, 300).orElseThrow(Refused::new);
        try {
            return unit.run(() -> {
                long id = shelves.add(clean, cleanNote, library, clock.instant());
                recorder.noteHouse(
                        actor, "shelf.added", "added the shelf " + clean + (library ? ", a library" : ""), "");
                return id;
            });
        } catch (DuplicateKeyException e) {
            throw Refused.because(
                    "shelf.name", "There is a shelf named “" + clean + "” already.", "Choose another name.");
        }
    }

    /** Says whether readers are told on a shelf that what is released is being revised. */
    public void hideRevising(Actor actor, long id, boolean hides) {
        Shelf shelf = shelves.shelf(id).filter(s -> actor.access().enters(id)).orElseThrow(NotThere::new);
        if (!actor.access().mayOn(Right.KEEP_SHELF, id, shelf.library())) {
            throw Refused.because("access.missing", "Only who keeps a shelf says this.", "Ask a data manager.");
        }
        if (shelf.hidesRevising() == hides) return;
        unit.run(() -> {
            shelves.hideRevising(id, hides);
            recorder.noteHouse(
                    actor,
                    "shelf.changed",
                    hides
                            ? "readers of the shelf " + shelf.name() + " are not told any more what is being revised"
                            : "readers of the shelf " + shelf.name() + " are told what is being revised",
                    "");
        });
    }

    public long addFolder(Actor actor, long shelf, OptionalLong parent, String name) {
        boolean library = shelves.shelf(shelf)
                .filter(s -> actor.access().enters(shelf))
                .orElseThrow(NotThere::new)
                .library();
        if (!actor.access().mayOn(Right.KEEP_SHELF, shelf, library)
                && !actor.access().mayOn(Right.FILE, shelf, library)) {
            throw Refused.because(
                    "access.missing", "Your roles do not let you add folders here.", "Ask a data manager.");
        }
        String clean = FileName.folder("The name", name).orElseThrow(Refused::new);
        Optional<Folder> above =
                parent.isPresent() ? shelves.folder(parent.getAsLong()) : Optional.of(shelves.root(shelf));
        Folder to = above.filter(f -> f.shelf() == shelf).orElseThrow(NotThere::new);
        try {
            return unit.run(() -> {
                long id = shelves.addFolder(to, clean);
                recorder.noteHouse(actor, "folder.added", "added the folder " + clean, "");
                return id;
            });
        } catch (DuplicateKeyException e) {
            throw Refused.because(
                    "folder.name", "There is a folder named “" + clean + "” here already.", "Choose another name.");
        }
    }
}
