package mintshelf.core.route;

import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/** Where a revision under way on one edition of a route, or on another route, stands once it goes on with the latest. */
public final class MovingOver {
    private MovingOver() {}

    /**
     * The stop of the same name and purpose, else the first one of the same purpose; nothing where it stands on that edition already.
     * What is being decided on finishes where it is: its signers were asked by the edition that it is on.
     */
    public static Outcome<Optional<Stage>> to(Stage now, Route latest) {
        if (now.edition() == latest.edition()) return Outcome.granted(Optional.empty());
        if (now.stageClass() == StageClass.DECIDING) {
            return Outcome.refused(
                    "move.over_deciding",
                    "It is being decided on in “" + now.name() + "”.",
                    "It finishes on its edition; take it back first to move it over now.");
        }
        Optional<Stage> same = latest.stages().stream()
                .filter(s -> s.code().equals(now.code()) && s.stageClass() == now.stageClass())
                .findFirst();
        Optional<Stage> to = same.or(() -> latest.firstOf(now.stageClass()));
        if (to.isPresent()) return Outcome.granted(to);
        return Outcome.refused(
                "move.over_nowhere",
                "The latest edition has no stop like “" + now.name() + "”.",
                "Add one, or let it finish on its own edition.");
    }
}
