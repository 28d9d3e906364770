package mintshelf.app.use.takein;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.Consumer;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeIn.State;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.TakeRules;
import mintshelf.core.takein.TakeTable;
import org.springframework.stereotype.Service;

/** Taking-ins as their people lead them: begun, looked at, mended, filed, given up. */
@Service
public class TakeIns {
    private static final int LISTED = 50;

    /** Letters of a table that is kept: it goes to the database in one piece. */
    private static final long TABLE_LETTERS = 5_000_000;

    private final TakeInStore takeIns;
    private final TakenFileStore files;
    private final ShelfStore shelves;
    private final UploadStore uploads;
    private final TakeKinds kinds;
    private final TakenFacts facts;
    private final DryRun dryRun;
    private final TakeRights rights;
    private final UnitOfWork unit;

    public TakeIns(
            TakeInStore takeIns,
            TakenFileStore files,
            ShelfStore shelves,
            UploadStore uploads,
            TakeKinds kinds,
            TakenFacts facts,
            DryRun dryRun,
            TakeRights rights,
            UnitOfWork unit) {
        this.takeIns = takeIns;
        this.files = files;
        this.shelves = shelves;
        this.uploads = uploads;
        this.kinds = kinds;
        this.facts = facts;
        this.dryRun = dryRun;
        this.rights = rights;
        this.unit = unit;
    }

    /** A kind to choose from. */
    public record KindName(long id, String name) {}

    /**
     * A taking-in as its page shows it.
     *
     * @param mine whether who looks leads it
     * @param documents how many go
     */
    public record View(
            TakeIn takeIn,
            String shelf,
            String folder,
            boolean mine,
            Map<Filter, Integer> counts,
            int documents,
            int filed,
            List<KindName> kinds) {
        public int open() {
            return counts.get(Filter.STOPS) + counts.get(Filter.WAITS);
        }
    }

    /** The shelf on which somebody takes in, with what was taken in there; refused for whom it is not open. */
    public record OnShelf(ShelfStore.Shelf shelf, List<Folder> folders, List<TakeIn> takeIns) {}

    public OnShelf onShelf(Actor actor, long shelf) {
        ShelfStore.Shelf on = rights.ask(actor, shelf);
        return new OnShelf(
                on,
                shelves.folders(shelf),
                takeIns.ofShelf(shelf, LISTED).stream()
                        .filter(t -> t.person() == actor.person() || HouseRules.keeps(actor))
                        .toList());
    }

    /** Those of the actor that wait for them. */
    public List<TakeIn> waiting(Actor actor) {
        return takeIns.waitingFor(actor.person(), LISTED);
    }

    /**
     * Begins one.
     *
     * @param folder in which all lies that comes; none for the top of the shelf
     */
    public long begin(Actor actor, long shelf, OptionalLong folder, String name) {
        rights.ask(actor, shelf);
        String called = Texts.required("The name", name, 200).orElseThrow(Refused::new);
        Folder to = folder.isPresent()
                ? shelves.folder(folder.getAsLong())
                        .filter(f -> f.shelf() == shelf)
                        .orElseThrow(NotThere::new)
                : shelves.root(shelf);
        if (kinds.known(actor, to).isEmpty()) {
            throw Refused.because(
                    "access.missing",
                    "Your roles do not let you file documents in this folder.",
                    "A data manager can give you one that does.");
        }
        return unit.run(() -> takeIns.begin(actor.person(), shelf, to.id(), called, dryRun.now()));
    }

    private TakeIn seen(Actor actor, long id) {
        return takeIns.takeIn(id)
                .filter(t -> t.person() == actor.person() || HouseRules.keeps(actor))
                .filter(t -> t.state() != State.DROPPED)
                .orElseThrow(NotThere::new);
    }

    /** One's own, or any for who keeps the house rules. */
    public View view(Actor actor, long id) {
        TakeIn takeIn = seen(actor, id);
        Map<Filter, Integer> counts = files.counts(id);
        Folder folder = shelves.folder(takeIn.folder()).orElseThrow(NotThere::new);
        return new View(
                takeIn,
                shelves.shelf(takeIn.shelf()).map(ShelfStore.Shelf::name).orElse("–"),
                folder.isRoot() ? "" : folder.name(),
                takeIn.person() == actor.person(),
                counts,
                files.documents(id),
                files.filed(id),
                kinds.known(actor, folder).values().stream()
                        .map(k -> new KindName(k.id(), k.name()))
                        .toList());
    }

    /** Files from a position on. */
    public List<TakenFile> files(Actor actor, long id, Filter filter, int from, int most) {
        seen(actor, id);
        return files.page(id, filter, Math.max(0, from), most);
    }

    /** Whether it works on: its page asks again. */
    public TakeIn state(Actor actor, long id) {
        return seen(actor, id);
    }

    /** All that came is read now, an archive unpacked before. */
    public void read(Actor actor, long id) {
        mine(actor, id, State.BRINGING, takeIn -> {
            boolean archive = takeIn.archive().isPresent();
            if (!archive && files.count(id) == 0) {
                throw Refused.because(
                        "take.nothing", "Nothing was brought yet.", "Choose a folder or an archive first.");
            }
            files.readAgain(id);
            takeIns.move(id, archive ? State.UNPACKING : State.READING, files.countUnread(id), "", dryRun.now());
        });
    }

    /** More is brought to what is there. */
    public void bringMore(Actor actor, long id) {
        mine(actor, id, State.OPEN, takeIn -> takeIns.move(id, State.BRINGING, 0, "", dryRun.now()));
    }

    public void setRules(Actor actor, long id, TakeRules rules) {
        mine(actor, id, State.OPEN, takeIn -> {
            takeIns.setRules(id, rules);
            planAnew(actor, id);
        });
    }

    /**
     * Takes a table of what is brought, in place of one that is there.
     *
     * @param name of its file
     */
    public void setTable(Actor actor, long id, String name, byte[] table) {
        List<List<String>> rows = TableFiles.read(table, TakeTable.MOST).orElseThrow(Refused::new);
        long letters = rows.stream()
                .flatMap(List::stream)
                .mapToLong(cell -> cell.length() + 3L)
                .sum();
        if (letters > TABLE_LETTERS) {
            throw Refused.because(
                    "table.large",
                    "The table says more than can be kept of it.",
                    "Leave columns out that mean nothing here, or take in the drive in parts; the table of before stays.");
        }
        // Said now, not when all is read: who brings a table sees at once whether it is one.
        TakeTable.of(rows, facts.heads()).orElseThrow(Refused::new);
        mineUnlessWorking(actor, id, takeIn -> {
            takeIns.setTable(id, Texts.line(name), rows);
            if (takeIn.isOpen()) planAnew(actor, id);
        });
    }

    public void dropTable(Actor actor, long id) {
        mineUnlessWorking(actor, id, takeIn -> {
            takeIns.setTable(id, "", List.of());
            if (takeIn.isOpen()) planAnew(actor, id);
        });
    }

    /** What somebody says of a file by hand goes before all else; what is empty is left to the table, the sheet and the name. */
    public void mend(Actor actor, long id, int at, Map<Column, String> said) {
        Map<Column, String> clean = new EnumMap<>(Column.class);
        said.forEach((column, text) -> {
            String line = Texts.shorten(Texts.line(text), 500);
            if (!line.isEmpty()) clean.put(column, line);
        });
        mine(actor, id, State.OPEN, takeIn -> {
            if (files.file(id, at).filter(f -> f.item().isEmpty()).isEmpty()) throw new NotThere();
            files.mend(id, at, clean);
            planAnew(actor, id);
        });
    }

    private void planAnew(Actor actor, long id) {
        files.tryAgain(id);
        dryRun.plan(actor, takeIns.takeIn(id).orElseThrow(NotThere::new));
        takeIns.touch(id, dryRun.now());
    }

    /**
     * All that goes is filed, in portions.
     *
     * @param documents as many as the page said: another number is another plan
     */
    public void file(Actor actor, long id, int documents) {
        mine(actor, id, State.OPEN, takeIn -> {
            planAnew(actor, id);
            int go = files.documents(id);
            if (go == 0) {
                throw Refused.because("take.none", "No document can be taken in as it is.", "Mend what is in the way.");
            }
            if (go != documents) {
                throw Refused.because(
                        "take.moved",
                        "It was " + Numbers.count(documents, "document", "documents") + " when you looked, it is " + go
                                + " now.",
                        "Look at it as it stands; nothing was filed.");
            }
            takeIns.move(id, State.FILING, go, "", dryRun.now());
        });
    }

    /** Stops its work after the portion that is under way; what is done stays. */
    public void stop(Actor actor, long id) {
        unit.run(() -> {
            TakeIn takeIn = lockMine(actor, id);
            if (!takeIn.isWorking()) return;
            State back = takeIn.state() == State.FILING ? State.OPEN : State.BRINGING;
            takeIns.move(id, back, 0, "You stopped it; what was done stays.", dryRun.now());
            if (back == State.OPEN) planAnew(actor, id);
        });
    }

    /** It ends as it stands: what is not filed is given up. */
    public void end(Actor actor, long id) {
        unit.run(() -> {
            TakeIn takeIn = lockMine(actor, id);
            if (takeIn.isWorking()) {
                throw Refused.because("take.works", "It is at work.", "Stop it first.");
            }
            if (takeIn.isDone()) return;
            List<Long> left = new ArrayList<>(files.uploads(id));
            takeIn.archive().ifPresent(left::add);
            uploads.keepUntil(left, dryRun.now());
            takeIns.move(id, files.filed(id) == 0 ? State.DROPPED : State.DONE, 0, "", dryRun.now());
        });
    }

    /** What becomes of all files as a table, to be mended and brought back. */
    public List<List<String>> table(Actor actor, long id) {
        seen(actor, id);
        return TakenTable.of(
                files.page(id, Filter.ALL, 0, TakeTable.MOST),
                kindId -> kinds.kind(kindId).name());
    }

    private TakeIn lockMine(Actor actor, long id) {
        return takeIns.lock(id)
                .filter(t -> t.person() == actor.person() && t.state() != State.DROPPED)
                .orElseThrow(NotThere::new);
    }

    private void mine(Actor actor, long id, State state, Consumer<TakeIn> act) {
        unit.run(() -> {
            TakeIn takeIn = lockMine(actor, id);
            rights.ask(actor, takeIn.shelf());
            if (takeIn.state() != state) {
                throw Refused.because(
                        "take.state",
                        "It stands elsewhere by now: " + takeIn.state().words() + ".",
                        "Load the page again; nothing was changed.");
            }
            act.accept(takeIn);
        });
    }

    private void mineUnlessWorking(Actor actor, long id, Consumer<TakeIn> act) {
        unit.run(() -> {
            TakeIn takeIn = lockMine(actor, id);
            rights.ask(actor, takeIn.shelf());
            if (!takeIn.isOpen() && !takeIn.isBringing()) {
                throw Refused.because(
                        "take.state",
                        "It cannot be changed while " + takeIn.state().words() + ".",
                        "Wait until it is done, or stop it.");
            }
            act.accept(takeIn);
        });
    }
}
