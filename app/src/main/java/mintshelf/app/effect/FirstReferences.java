package mintshelf.app.effect;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/** What the first version of a new document refers to; in the act that makes it, once all that it may mean is there. */
@Component
public class FirstReferences {
    private final References references;
    private final VersionStore versions;
    private final FactStore facts;

    FirstReferences(References references, VersionStore versions, FactStore facts) {
        this.references = references;
        this.versions = versions;
        this.facts = facts;
    }

    /** A document that was just made, with its first version. */
    public record Of(long item, long revision, long version, StoredContent content) {}

    /**
     * Looks up what is written, keeps it, and makes the version's digest say it.
     *
     * @param like version whose picks go on
     */
    public void keep(Of made, List<Written> written, Optional<Long> like) {
        if (written.isEmpty()) return;
        keep(made, references.resolve(made.item(), written, like, Map.of()).orElseThrow(Refused::new));
    }

    /** As {@link #keep(Of, List, Optional)}, where it is known what is meant. */
    public void keep(Of made, List<Reference> refersTo) {
        if (refersTo.isEmpty()) return;
        references.keep(made.version(), refersTo);
        versions.setDigest(
                made.version(),
                VersionDigest.of(made.content().hash(), facts.facts(made.revision()), References.digests(refersTo)));
    }
}
