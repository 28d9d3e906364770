package mintshelf.app.effect.deed;

import java.util.Optional;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.document.Document;
import mintshelf.core.document.Revision;
import mintshelf.core.document.Stage;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;

/** A document on its way along a move: what deeds found out and made of it on the way. */
public final class Mover {
    private final Seen seen;
    private final Route route;
    private final Move move;
    private final Revision revision;
    private final VersionRow from;
    private String label;
    private VersionRow out;

    /** @param head its latest version */
    public Mover(Seen seen, Route route, Move move, VersionRow head) {
        this.seen = seen;
        this.route = route;
        this.move = move;
        this.revision = seen.document().current();
        this.label = revision.label().orElse("");
        this.from = head;
        this.out = head;
    }

    public Seen seen() {
        return seen;
    }

    public Document document() {
        return seen.document();
    }

    public Route route() {
        return route;
    }

    public Move move() {
        return move;
    }

    public Stage to() {
        return route.stage(move.to());
    }

    public Revision revision() {
        return revision;
    }

    /** Empty while none is fixed. */
    public String label() {
        return label;
    }

    public void fix(String fixed) {
        label = fixed;
    }

    /** The version that it goes with: the one that was there, or what a deed wrote. */
    public VersionRow out() {
        return out;
    }

    public void goesWith(VersionRow written) {
        out = written;
    }

    /** The number of the version that was signed, where a deed wrote another one. */
    public Optional<Integer> writtenFrom() {
        return out.number() == from.number() ? Optional.empty() : Optional.of(from.number());
    }
}
