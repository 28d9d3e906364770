package mintshelf.app.use.document;

import java.time.Clock;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NamedByStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.FileName;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Dropping a document that was filed by mistake, bringing it back, and letting its bytes go when nobody did. */
@Service
public class DropDocument {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    /** Documents that one turn of the run lets go. */
    private static final int PORTION = 50;

    private final Sight sight;
    private final DocumentStore documents;
    private final NamedByStore named;
    private final NumberStore numbers;
    private final HoldStore holds;
    private final StrayStore strays;
    private final ContentStore contents;
    private final Acts acts;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Settings settings;
    private final Clock clock;

    public DropDocument(
            Sight sight,
            DocumentStore documents,
            NamedByStore named,
            NumberStore numbers,
            HoldStore holds,
            StrayStore strays,
            ContentStore contents,
            Acts acts,
            UnitOfWork unit,
            Recorder recorder,
            Settings settings,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.named = named;
        this.numbers = numbers;
        this.holds = holds;
        this.strays = strays;
        this.contents = contents;
        this.acts = acts;
        this.unit = unit;
        this.recorder = recorder;
        this.settings = settings;
        this.clock = clock;
    }

    /** What is in the way of dropping a document; asked by its page and, under the lock, by the act. */
    public Optional<Refusal> refusal(Actor actor, Seen seen) {
        Document document = seen.document();
        boolean author = seen.spine().author() == actor.person();
        boolean released = seen.spine().out().isPresent();
        // Where it is named is asked last: most who look may not drop anyway.
        Optional<Refusal> first =
                DropRules.drop(document, actor.access(), new DropRules.Known(author, released, List.of()));
        if (first.isPresent()) return first;
        return DropRules.drop(
                document, actor.access(), new DropRules.Known(author, released, namedBy(actor, document.id())));
    }

    private List<String> namedBy(Actor actor, long item) {
        List<Long> parents = named.parents(item);
        List<Long> orders = named.orders(item);
        List<Long> linked = named.linkedFrom(item);
        Set<Long> all = new LinkedHashSet<>(parents);
        all.addAll(orders);
        all.addAll(linked);
        Map<Long, Seen> seen = sight.of(actor, all);
        List<String> places = new ArrayList<>();
        say(places, parents, seen, ", which it stands in");
        say(places, orders, seen, ", the order that it is on");
        say(places, linked, seen, ", which links to it");
        named.rounds(item).forEach(at -> places.add("the round of " + DAY.format(at.atZone(settings.zone()))));
        long hidden = all.stream().filter(id -> !seen.containsKey(id)).count();
        if (hidden > 0) places.add(Numbers.count(hidden, "document", "documents") + " that you do not see");
        return places;
    }

    private static void say(List<String> places, List<Long> items, Map<Long, Seen> seen, String how) {
        for (long id : items) {
            if (seen.containsKey(id)) places.add(seen.get(id).document().number() + how);
        }
    }

    /** Drops a document that was filed by mistake: never released, named by nobody; by its author or who keeps the shelf. */
    public String drop(Actor actor, long item, String key, String why) {
        String reason = Texts.required("The reason", why, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            refusal(actor, seen).ifPresent(r -> {
                throw new Refused(r);
            });
            Document document = seen.document();
            Instant now = clock.instant();
            document.holder()
                    .ifPresent(h -> holds.end(h.hold(), HoldStore.Ending.DROPPED, actor.person(), reason, now));
            documents.drop(item, actor.person(), reason, now);
            numbers.drop(item);
            recorder.note(actor, item, "document.dropped", "dropped the document; its number stays used", reason);
            return "/shelves/" + document.place().shelf() + "?dropped=" + item;
        });
    }

    /** Who dropped a document, when and why. */
    public Optional<DocumentStore.Dropped> dropped(Seen seen) {
        return seen.document().dropped() ? documents.dropped(seen.spine().id()) : Optional.empty();
    }

    /** The documents of a shelf that can be brought back, for who keeps it; the one dropped last first. */
    public List<Seen> ofShelf(Actor actor, long shelf) {
        if (!actor.access().maySomewhere(Right.KEEP_SHELF)) return List.of();
        return sight.of(actor, documents.droppedOf(shelf, clock.instant().minus(DropRules.KEPT), 200)).values().stream()
                .filter(s -> actor.access().may(Right.KEEP_SHELF, s.document().place()))
                .toList();
    }

    /** What is in the way of bringing a document back. */
    public Optional<Refusal> bringBackRefusal(Actor actor, Seen seen) {
        Instant at = dropped(seen).map(DocumentStore.Dropped::at).orElse(Instant.EPOCH);
        return DropRules.bringBack(seen.document(), actor.access(), at, clock.instant());
    }

    /** Brings a dropped document back, as it stood. Its file takes another name where its own is another's by now. */
    public String bringBack(Actor actor, long item, String key) {
        return acts.once(actor, key, () -> {
            Seen seen = sight.lockedWithDropped(actor, List.of(item)).get(0);
            bringBackRefusal(actor, seen).ifPresent(r -> {
                throw new Refused(r);
            });
            FileName name = FileName.of(seen.document().fileName());
            FileName free = name;
            for (int i = 2; documents.fileNameIsTaken(seen.spine().folder(), free); i++) {
                free = name.numbered(i);
            }
            documents.bringBack(item, free, clock.instant());
            numbers.bringBack(item);
            recorder.note(
                    actor,
                    item,
                    "document.brought_back",
                    "brought the document back"
                            + (free.name().equals(name.name()) ? "" : "; its file is called " + free.name() + " now"),
                    "");
            return "/documents/" + item;
        });
    }

    /** Lets the bytes go of what was dropped long ago and of files kept in case more than their saving had changed. */
    @Scheduled(initialDelayString = "PT7M", fixedDelayString = "PT1H")
    public void letGo() {
        Instant now = clock.instant();
        unit.run(() -> {
            strays.forgetSaved(now, PORTION).forEach(contents::freeUnlessHeld);
            return 0;
        });
        int freed;
        do {
            freed = unit.run(() -> {
                List<Long> items = documents.toFree(now.minus(DropRules.KEPT), PORTION);
                for (long item : items) {
                    Set<Long> held = new LinkedHashSet<>(strays.contents(item));
                    strays.removeAll(item);
                    held.addAll(documents.free(item, now));
                    held.forEach(contents::freeUnlessHeld);
                    recorder.noteByItself(item, "document.freed", "let the bytes of the dropped document go");
                }
                return items.size();
            });
        } while (freed == PORTION);
    }
}
