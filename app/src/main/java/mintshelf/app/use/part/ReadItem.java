package mintshelf.app.use.part;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.core.redline.Remark;
import org.springframework.stereotype.Service;

/** One thing: what bears its number together. */
@Service
public class ReadItem {
    private final Sight sight;
    private final Numbered numbered;
    private final Redlines redlines;

    public ReadItem(Sight sight, Numbered numbered, Redlines redlines) {
        this.sight = sight;
        this.numbered = numbered;
        this.redlines = redlines;
    }

    /** A document and the others of its number, as the actor sees them: drawing, model, part, paper. Not there for what was dropped, and for papers of changes. */
    public List<Seen> of(Actor actor, long item) {
        List<Seen> all = numbered.together(actor, sight.of(actor, item));
        if (all.stream().noneMatch(s -> s.spine().id() == item)) throw new NotThere();
        return all;
    }

    /** What draws a part without a file, or the part of its own beside what is drawn. */
    public List<Seen> ownBeside(Actor actor, Seen seen) {
        return numbered.ownBeside(actor, seen);
    }

    /** The open remarks on one of them; none for who sees released versions only. */
    public List<Remark> open(Seen seen) {
        if (!seen.all() || seen.spine().remarks() == 0) return List.of();
        return redlines.of(seen).stream().filter(r -> r.state().isOpen()).toList();
    }
}
