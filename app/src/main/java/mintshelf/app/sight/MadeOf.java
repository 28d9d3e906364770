package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.structure.StructureGraph.Use;
import org.springframework.stereotype.Component;

/**
 * What has to be in force where documents are: what their files refer to, what people wrote into their BOMs, and of each of them the part that has
 * revisions of its own. Gates and release plans ask here, so that a plan offers what a gate asks for. That the actor may see it is asked elsewhere.
 */
@Component
public class MadeOf {
    private final ReferenceStore references;
    private final NumberStore numbers;

    MadeOf(ReferenceStore references, NumberStore numbers) {
        this.references = references;
        this.numbers = numbers;
    }

    /** Of the latest versions of some documents; a statement or two for each few hundred of them. */
    public List<Use> of(Collection<Long> items) {
        List<Use> all = new ArrayList<>(references.headUses(items));
        all.addAll(references.usesByHand(items));
        Map<Long, Long> own =
                numbers.ownParts(all.stream().map(Use::component).distinct().toList());
        if (own.isEmpty()) return all;
        List<Use> parts = all.stream()
                .filter(u -> own.containsKey(u.component()))
                .map(u -> new Use(u.parent(), own.get(u.component()), u.quantity(), 0))
                .toList();
        all.addAll(parts);
        return all;
    }

    /** What files refer to, by version, as {@link ReferenceStore#of(Collection)}. */
    Map<Long, List<Reference>> references(Collection<Long> versions) {
        return references.of(versions);
    }
}
