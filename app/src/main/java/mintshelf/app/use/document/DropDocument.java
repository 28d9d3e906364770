package mintshelf.app.use.document;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;
import mintshelf.core.document.FileName;
import org.springframework.stereotype.Service;

/** Dropping a document that was filed by mistake, bringing it back, and letting its bytes go when nobody did. */
@Service
public class DropDocument {
    private final Sight sight;
    private final DocumentStore documents;
    private final NamedIn named;
    private final NumberStore numbers;
    private final HoldStore holds;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public DropDocument(
            Sight sight,
            DocumentStore documents,
            NamedIn named,
            NumberStore numbers,
            HoldStore holds,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.named = named;
        this.numbers = numbers;
        this.holds = holds;
        this.acts = acts;
        this.recorder = recorder;
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
                document, actor.access(), new DropRules.Known(author, released, named.places(actor, document.id())));
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
}
