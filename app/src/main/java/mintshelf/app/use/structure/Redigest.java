package mintshelf.app.use.structure;

import java.util.Map;
import mintshelf.app.effect.References;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.document.Document;
import mintshelf.core.document.VersionDigest;
import org.springframework.stereotype.Component;

/** Binds a document's latest version to its references anew, after they were put right. */
@Component
class Redigest {
    private final FactStore facts;
    private final DocumentStore documents;
    private final VersionStore versions;
    private final ReferenceStore store;

    Redigest(FactStore facts, DocumentStore documents, VersionStore versions, ReferenceStore store) {
        this.facts = facts;
        this.documents = documents;
        this.versions = versions;
        this.store = store;
    }

    /** What the version is bound to is another now; the graph learns of it. */
    /** Within the act that changed them. */
    void of(Seen seen) {
        Document document = seen.document();
        long head = document.head().version();
        Map<String, String> facts = this.facts.facts(document.current().id());
        versions.setDigest(
                head, VersionDigest.of(document.head().content(), facts, References.digests(store.of(head))));
        documents.structureMoved(document.id());
    }
}
