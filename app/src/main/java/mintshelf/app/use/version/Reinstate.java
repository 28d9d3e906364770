package mintshelf.app.use.version;

import java.util.Optional;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Makes an earlier version current again, as a new version. */
@Service
public class Reinstate {
    private final Sight sight;
    private final DocumentStore documents;
    private final NewVersions versions;
    private final References references;
    private final Acts acts;
    private final Recorder recorder;

    public Reinstate(
            Sight sight,
            DocumentStore documents,
            NewVersions versions,
            References references,
            Acts acts,
            Recorder recorder) {
        this.sight = sight;
        this.documents = documents;
        this.versions = versions;
        this.references = references;
        this.acts = acts;
        this.recorder = recorder;
    }

    /** What stands in the way; nothing when it may be. Not under a hold, the actor's own too: see {@link HoldRules#between}. */
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
        return HoldRules.between(document, actor.access());
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
            DocumentStore.Added added = versions.add(
                    actor,
                    document,
                    new NewVersions.Made(
                            old.content(),
                            references.of(old.id()),
                            words.isEmpty() ? "copy of version " + number : words,
                            VersionRow.MadeBy.REINSTATED,
                            Optional.of(document.head().version()),
                            Optional.of(old.id()),
                            "version " + number + " was made current again"));
            int made = added.number();
            recorder.note(
                    actor,
                    item,
                    "version.added",
                    made,
                    "made version " + number + " current again as version " + made,
                    words);
            return "/documents/" + item + "?reinstated";
        });
    }
}
