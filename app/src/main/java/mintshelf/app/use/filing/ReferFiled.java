package mintshelf.app.use.filing;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Links;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/** What documents that were just filed refer to, each other too. */
@Component
public class ReferFiled {
    private final References references;
    private final Links links;
    private final VersionStore versions;
    private final FactStore facts;

    public ReferFiled(References references, Links links, VersionStore versions, FactStore facts) {
        this.references = references;
        this.links = links;
        this.versions = versions;
        this.facts = facts;
    }

    /** Once all are there, for files that are filed together refer to each other. */
    void all(Actor actor, List<FileRows.Made> made, Map<String, List<Written>> read) {
        for (FileRows.Made m : made) {
            links.byNumber(actor, m.item());
            List<Written> written = read.getOrDefault(m.token(), List.of());
            if (written.isEmpty()) continue;
            List<Reference> refersTo = references
                    .resolve(m.item(), written, Optional.empty(), Map.of())
                    .orElseThrow(Refused::new);
            references.keep(m.version(), refersTo);
            versions.setDigest(
                    m.version(),
                    VersionDigest.of(m.content().hash(), facts.facts(m.revision()), References.digests(refersTo)));
        }
    }
}
