package mintshelf.app.sight;

import java.util.Set;
import mintshelf.app.store.document.Spine;
import mintshelf.core.notice.Moment;
import mintshelf.core.revision.StageClass;

/** At which moment of a document an act of the record was, and with it who may hear of it. */
public final class Moments {
    /** Acts that leave a document in force as it was before. */
    private static final Set<String> QUIET = Set.of("revision.started", "revision.dropped", "revision.moved_over");

    private Moments() {}

    /** Whether an act is a moment at all that people follow. */
    public static boolean isMoment(String act) {
        boolean version = act.equals("version.added") || act.equals("version.reinstated");
        return version || (act.startsWith("revision.") && !act.equals("revision.superseded"));
    }

    /** The moment of such an act, by where the document stands since. */
    public static Moment of(String act, Spine spine) {
        if (act.startsWith("version.")) return Moment.VERSION;
        StageClass at = spine.document().current().stage().stageClass();
        boolean inForce = at == StageClass.RELEASED || at == StageClass.WITHDRAWN;
        return inForce && !QUIET.contains(act) ? Moment.RELEASE : Moment.STAGE;
    }
}
