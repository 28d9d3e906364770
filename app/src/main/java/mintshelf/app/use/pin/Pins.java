package mintshelf.app.use.pin;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.pin.PinStore;
import mintshelf.app.store.pin.PinStore.Kind;
import mintshelf.app.store.pin.PinStore.Pin;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.store.shelf.ShelfStore;
import org.springframework.stereotype.Service;

/** What somebody keeps at hand: documents, orders, folders, shelves, kept searches, in a sequence of their own; and what they had open. */
@Service
public class Pins {
    /** More of them are not at hand any more. */
    public static final int MOST = 40;

    private static final int RECENT = 30;

    private final PinStore pins;
    private final ListStore lists;
    private final ShelfStore shelves;
    private final KeptSearchStore searches;
    private final Sight sight;
    private final UnitOfWork unit;

    Pins(PinStore pins, ListStore lists, ShelfStore shelves, KeptSearchStore searches, Sight sight, UnitOfWork unit) {
        this.pins = pins;
        this.lists = lists;
        this.shelves = shelves;
        this.searches = searches;
        this.sight = sight;
        this.unit = unit;
    }

    /**
     * A pin as a line.
     *
     * @param seen the document that it is of, where it is of one
     */
    public record Line(Pin pin, String name, String says, String href, Optional<Seen> seen) {}

    /** A document with why it is among the recent ones. */
    public record RecentLine(Seen seen, ListStore.Recent recent) {}

    /** The actor's pins, of what they may see at this moment; a number of statements that does not grow with them. */
    public List<Line> lines(Actor actor) {
        List<Pin> all = pins.of(actor.person());
        if (all.isEmpty()) return List.of();
        Map<Long, Seen> seen = sight.of(
                actor,
                all.stream().filter(p -> p.kind() == Kind.ITEM).map(Pin::target).toList());
        boolean placed = all.stream().anyMatch(p -> p.kind() == Kind.SHELF || p.kind() == Kind.FOLDER);
        Map<Long, ShelfStore.Shelf> entered = new HashMap<>();
        Map<Long, ShelfStore.Folder> folders = new HashMap<>();
        if (placed) {
            shelves.shelves().stream()
                    .filter(s -> actor.access().enters(s.id()))
                    .forEach(s -> entered.put(s.id(), s));
            shelves.folders(entered.keySet()).forEach(f -> folders.put(f.id(), f));
        }
        Map<Long, KeptSearchStore.Kept> kept = new HashMap<>();
        if (all.stream().anyMatch(p -> p.kind() == Kind.SEARCH)) {
            searches.of(actor.person(), 1000).forEach(k -> kept.put(k.id(), k));
        }
        List<Line> lines = new ArrayList<>();
        for (Pin pin : all) {
            switch (pin.kind()) {
                case ITEM ->
                    Optional.ofNullable(seen.get(pin.target()))
                            .ifPresent(s -> lines.add(new Line(
                                    pin,
                                    s.document().number(),
                                    s.document().title(),
                                    s.spine().page(),
                                    Optional.of(s))));
                case SHELF ->
                    Optional.ofNullable(entered.get(pin.target()))
                            .ifPresent(s -> lines.add(
                                    new Line(pin, s.name(), "shelf", "/shelves/" + s.id(), Optional.empty())));
                case FOLDER ->
                    Optional.ofNullable(folders.get(pin.target()))
                            .ifPresent(f -> lines.add(new Line(
                                    pin,
                                    f.name(),
                                    "on " + entered.get(f.shelf()).name(),
                                    "/shelves/" + f.shelf() + "?folder=" + f.id(),
                                    Optional.empty())));
                case SEARCH ->
                    Optional.ofNullable(kept.get(pin.target()))
                            .ifPresent(k -> lines.add(
                                    new Line(pin, k.name(), "search", "/searches/" + k.id(), Optional.empty())));
            }
        }
        return lines;
    }

    public boolean isPinned(Actor actor, Pin pin) {
        return pins.isPinned(actor.person(), pin);
    }

    /** Pins what the actor may see. */
    public void pin(Actor actor, Pin pin) {
        unit.run(() -> {
            ask(actor, pin);
            if (pins.of(actor.person()).size() >= MOST && !pins.isPinned(actor.person(), pin)) {
                throw Refused.because("pin.full", "You have " + MOST + " pins.", "Take one away; nothing was changed.");
            }
            pins.add(actor.person(), pin);
        });
    }

    private void ask(Actor actor, Pin pin) {
        switch (pin.kind()) {
            case ITEM -> sight.of(actor, pin.target());
            case SHELF ->
                enter(
                        actor,
                        shelves.shelf(pin.target()).orElseThrow(NotThere::new).id());
            case FOLDER ->
                enter(
                        actor,
                        shelves.folder(pin.target()).orElseThrow(NotThere::new).shelf());
            case SEARCH -> {
                if (searches.one(actor.person(), pin.target()).isEmpty()) throw new NotThere();
            }
        }
    }

    private static void enter(Actor actor, long shelf) {
        if (!actor.access().enters(shelf)) throw new NotThere();
    }

    public void unpin(Actor actor, Pin pin) {
        unit.run(() -> pins.remove(actor.person(), pin));
    }

    /** Puts a pin before the one that stands before it. */
    public void up(Actor actor, Pin pin) {
        unit.run(() -> {
            List<Pin> all = new ArrayList<>(pins.of(actor.person()));
            int at = all.indexOf(pin);
            if (at > 0) Collections.swap(all, at, at - 1);
            pins.order(actor.person(), all);
        });
    }

    /** What the actor opened, filed or changed last, with why. */
    public List<RecentLine> recent(Actor actor) {
        List<ListStore.Recent> recent = lists.recent(actor.person(), RECENT);
        Map<Long, Seen> seen =
                sight.of(actor, recent.stream().map(ListStore.Recent::item).toList());
        return recent.stream()
                .filter(r -> seen.containsKey(r.item()))
                .map(r -> new RecentLine(seen.get(r.item()), r))
                .toList();
    }
}
