package mintshelf.app.effect;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.VersionDigest;
import org.springframework.stereotype.Component;

/** What a new document that begins as a copy refers to, and what it came from. */
@Component
class FreshTies {
    private final References references;
    private final Links links;
    private final VersionStore versions;
    private final FactStore facts;
    private final Recorder recorder;

    FreshTies(References references, Links links, VersionStore versions, FactStore facts, Recorder recorder) {
        this.recorder = recorder;
        this.references = references;
        this.links = links;
        this.versions = versions;
        this.facts = facts;
    }

    /**
     * The copy refers by the same names to what is found from where it lies.
     *
     * @param source version of which it is a copy
     */
    void tie(Actor actor, NewDocuments.Made made, StoredContent content, long from, long source) {
        links.byNumber(actor, made.item());
        links.started(actor, made.item(), from);
        List<Reference> before = references.of(source);
        if (before.isEmpty()) return;
        List<Reference> refersTo = references
                .resolve(made.item(), before.stream().map(Reference::written).toList(), Optional.of(source), Map.of())
                .orElseThrow(Refused::new);
        references.keep(made.version(), refersTo);
        versions.setDigest(
                made.version(),
                VersionDigest.of(content.hash(), facts.facts(made.revision()), References.digests(refersTo)));
    }

    void tell(Actor actor, NewDocuments.Made made, String says, String comment) {
        recorder.recent(actor, made.item(), "made");
        recorder.note(actor, made.item(), "version.added", made.number(), says, comment);
    }
}
