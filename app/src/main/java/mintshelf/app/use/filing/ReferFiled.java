package mintshelf.app.use.filing;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FirstReferences;
import mintshelf.app.effect.Links;
import mintshelf.app.ground.Actor;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/** What documents that were just filed refer to, each other too. */
@Component
public class ReferFiled {
    private final Links links;
    private final FirstReferences first;

    public ReferFiled(Links links, FirstReferences first) {
        this.links = links;
        this.first = first;
    }

    /** Once all are there, for files that are filed together refer to each other. */
    void all(Actor actor, List<FileRows.Made> made, Map<String, List<Written>> read, Optional<Long> derivedFrom) {
        for (FileRows.Made m : made) {
            links.byNumber(actor, m.item());
            derivedFrom.ifPresent(from -> links.derived(actor, m.item(), from));
            m.ready().row().origin().startedFrom().ifPresent(from -> links.started(actor, m.item(), from));
            first.keep(
                    new FirstReferences.Of(m.item(), m.revision(), m.version(), m.content()),
                    read.getOrDefault(m.token(), List.of()),
                    Optional.empty());
        }
    }
}
