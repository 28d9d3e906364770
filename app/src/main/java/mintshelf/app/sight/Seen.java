package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.Spine;
import mintshelf.core.access.Right;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.document.VersionName;

/**
 * A document as one person may see it.
 *
 * @param all whether work in preparation is seen; else only what is or was released
 * @param revised whether who sees released versions only is told that a next one is being worked on
 */
public record Seen(Spine spine, boolean all, boolean revised) {
    public Document document() {
        return spine.document();
    }

    /** What the actor may see of the document; nothing when they may not know of it. */
    public static Optional<Seen> by(Actor actor, Spine spine) {
        if (spine.document().dropped()
                && !actor.access().may(Right.KEEP_SHELF, spine.document().place())) {
            return Optional.empty();
        }
        if (actor.access().may(Right.SEE_ALL, spine.document().place()))
            return Optional.of(new Seen(spine, true, false));
        // Who asks for a change of what they see released follows what becomes of it.
        if (spine.isRequest() && spine.author() == actor.person()) return Optional.of(new Seen(spine, true, false));
        boolean released =
                actor.access().may(Right.SEE_RELEASED, spine.document().place());
        if (!released || spine.out().isEmpty()) return Optional.empty();
        Document d = spine.document();
        boolean revised = d.pending().isPresent() && d.released().isPresent() && !spine.hidesRevising();
        return Optional.of(new Seen(spine.released(), false, revised));
    }

    /** The pending revision, where the person may see it. */
    public Optional<Revision> pending() {
        return document().pending();
    }

    /** The revision that this person works with. */
    public Revision current() {
        return document().current();
    }

    /** What the version is called that this person gets. */
    public VersionName name() {
        return document().head().name();
    }

    /** The number of the version that this person gets. */
    public int version() {
        return document().head().number();
    }

    /** The address at which an older version is compared with the one that this person gets: models over each other, sheets by their differences. */
    public String comparison(int older) {
        String now = "/documents/" + spine.id() + "/versions/" + version();
        return spine.content().kind() == ContentKind.STEP
                ? now + "/model?with=" + older
                : now + "/compare?old=" + older;
    }
}
