package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Gives a revision its label where none was reserved when it began. */
@Component
class FixLabel implements Deed {
    private final DocumentStore documents;
    private final StartRevision start;

    FixLabel(DocumentStore documents, StartRevision start) {
        this.documents = documents;
        this.start = start;
    }

    @Override
    public Effect effect() {
        return Effect.FIX_LABEL;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        for (Mover one : movers) {
            if (!one.label().isEmpty()) continue;
            one.fix(start.nextLabel(one.document()));
            documents.fixLabel(one.revision().id(), one.label());
        }
    }
}
