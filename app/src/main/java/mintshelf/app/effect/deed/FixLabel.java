package mintshelf.app.effect.deed;

import java.util.List;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Gives a revision its label where none was reserved when it began. */
@Component
class FixLabel implements Deed {
    private final RevisionStore revisions;
    private final StartRevision start;

    FixLabel(RevisionStore revisions, StartRevision start) {
        this.revisions = revisions;
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
            revisions.fixLabel(one.revision().id(), one.label());
        }
    }
}
