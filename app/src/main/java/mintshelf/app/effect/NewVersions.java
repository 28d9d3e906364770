package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.document.VersionStore.Added;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.document.VersionName;
import org.springframework.stereotype.Component;

/** Makes the next version of a document of what came back; within the transaction of the act, under the document's lock. */
@Component
public class NewVersions {
    private final VersionStore versions;
    private final FactStore facts;
    private final ListStore lists;
    private final References references;
    private final Links links;
    private final FallingSignOffs signOffs;
    private final EndTrial trials;
    private final Clock clock;

    public NewVersions(
            VersionStore versions,
            FactStore facts,
            ListStore lists,
            References references,
            Links links,
            FallingSignOffs signOffs,
            EndTrial trials,
            Clock clock) {
        this.versions = versions;
        this.facts = facts;
        this.lists = lists;
        this.references = references;
        this.links = links;
        this.signOffs = signOffs;
        this.trials = trials;
        this.clock = clock;
    }

    /**
     * What a version is made of.
     *
     * @param refersTo what its content refers to, resolved
     * @param base the version that its author started from
     * @param copyOf the version whose content it brings back
     * @param says why a round's sign-offs fall by it, after "since": "version 4 came"
     */
    public record Made(
            StoredContent content,
            List<Reference> refersTo,
            String comment,
            VersionRow.MadeBy madeBy,
            Optional<Long> base,
            Optional<Long> copyOf,
            String says) {}

    /** Adds the version, with what it refers to; links of the document are held against their targets' latest versions. */
    public Added add(Actor actor, Document document, Made made) {
        Instant now = clock.instant();
        long revision = document.pending().orElseThrow().id();
        Map<String, String> facts = this.facts.facts(revision);
        VersionStore.NewVersion version = new VersionStore.NewVersion(
                document.id(),
                revision,
                made.content().id(),
                document.fileName(),
                VersionDigest.of(made.content().hash(), facts, References.digests(made.refersTo())),
                made.comment(),
                actor.person(),
                made.madeBy(),
                made.base(),
                made.copyOf(),
                facts);
        Added added = versions.addVersion(document.isTried() ? version.on(document.line()) : version, now);
        references.keep(added.version(), made.refersTo());
        lists.noteRecent(actor.person(), document.id(), "changed", now);
        // What is tried moves nothing of its document: neither what its links are held against nor who has signed it.
        if (document.isTried()) {
            String name = new VersionName(document.trial(), added.number()).says();
            trials.movedOn(actor, document.line(), document.id(), name + " of " + document.ownNumber());
            return added;
        }
        links.capture(document.id());
        signOffs.changed(
                actor, document.id(), made.says().isEmpty() ? "version " + added.number() + " came" : made.says());
        return added;
    }
}
