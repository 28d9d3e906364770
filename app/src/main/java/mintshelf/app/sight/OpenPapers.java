package mintshelf.app.sight;

import mintshelf.app.ground.Actor;
import mintshelf.core.access.Right;
import mintshelf.core.revision.StageClass;

/** What of papers of change is still written, and by whom. */
public final class OpenPapers {
    private OpenPapers() {}

    /** Whether somebody may change what a paper says now: not while the board decides, nor afterwards. */
    public static boolean mayWrite(Actor actor, Seen paper) {
        boolean hand = paper.spine().author() == actor.person()
                || actor.access().may(Right.CHANGE, paper.document().place())
                || actor.access().may(Right.DECIDE_CHANGES, paper.document().place());
        return hand && paper.all() && paper.current().stage().stageClass() == StageClass.PREPARING;
    }
}
