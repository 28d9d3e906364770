package mintshelf.app.use.version;

import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Acts;
import mintshelf.app.use.FallingSignOffs;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Recorder;
import mintshelf.app.use.Refused;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sight;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Makes an earlier version current again, as a new version. */
@Service
public class Reinstate {
    private final Sight sight;
    private final DocumentStore documents;
    private final HoldStore holds;
    private final ListStore lists;
    private final FallingSignOffs signOffs;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public Reinstate(
            Sight sight,
            DocumentStore documents,
            HoldStore holds,
            ListStore lists,
            FallingSignOffs signOffs,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.holds = holds;
        this.lists = lists;
        this.signOffs = signOffs;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What stands in the way; nothing when it may be. A document that the actor holds may be reinstated under the hold. */
    public static Optional<Refusal> refusal(Actor actor, Document document, VersionRow version) {
        if (version.number() == document.head().number()) {
            return Optional.of(Refusal.of(
                    "version.latest",
                    "Version " + version.number() + " is the latest already.",
                    "Pick an earlier one on the strip."));
        }
        if (version.content().hash().equals(document.head().content())) {
            return Optional.of(Refusal.of(
                    "version.same",
                    "The latest version has the same content as version " + version.number() + ".",
                    "There is nothing to bring back."));
        }
        return HoldRules.checkOut(document, actor.access())
                .filter(r -> !r.code().equals("hold.mine"));
    }

    /** Makes version {@code number} the next version. */
    public String reinstate(Actor actor, long item, String key, int number, int expectedVersion, String comment) {
        String words = Texts.optionalLines("The comment", comment, 10_000).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, item);
            if (!seen.all()) throw new NotThere();
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            VersionRow old = documents.version(item, number).orElseThrow(NotThere::new);
            refusal(actor, document, old).ifPresent(r -> {
                throw new Refused(r);
            });
            Instant now = clock.instant();
            long revision = document.pending().orElseThrow().id();
            Map<String, String> facts = documents.facts(revision);
            int made = documents.addVersion(
                    new DocumentStore.NewVersion(
                            item,
                            revision,
                            old.content().id(),
                            document.fileName(),
                            VersionDigest.of(old.content().hash(), facts),
                            words.isEmpty() ? "copy of version " + number : words,
                            actor.person(),
                            VersionRow.MadeBy.REINSTATED,
                            Optional.of(document.head().version()),
                            Optional.of(old.id()),
                            facts),
                    now);
            document.holder()
                    .ifPresent(h -> holds.rebase(
                            h.hold(), sight.of(actor, item).document().head().version()));
            lists.noteRecent(actor.person(), item, "changed", now);
            signOffs.changed(actor, item, "version " + number + " was made current again");
            recorder.note(
                    actor,
                    item,
                    "version.added",
                    made,
                    "made version " + number + " current again as version " + made,
                    words);
            return "/documents/" + item;
        });
    }
}
