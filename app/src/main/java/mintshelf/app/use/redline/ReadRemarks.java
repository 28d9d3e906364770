package mintshelf.app.use.redline;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Redlines.Paper;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import org.springframework.stereotype.Service;

/** Remarks as the page of a sheet shows them. Whoever sees only what is released finds none, and no page of them. */
@Service
public class ReadRemarks {
    private static final int ROUNDS = 500;

    private final Sight sight;
    private final VersionStore versions;
    private final Redlines redlines;
    private final RoundStore rounds;

    public ReadRemarks(Sight sight, VersionStore versions, Redlines redlines, RoundStore rounds) {
        this.sight = sight;
        this.versions = versions;
        this.redlines = redlines;
        this.rounds = rounds;
    }

    /** Remarks on a version's sheet. */
    public record OnSheet(Seen seen, Paper paper, List<Placed> placed) {}

    public Seen seen(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return seen;
    }

    /** @param layout of the drawing; empty for the sheet */
    public OnSheet on(Actor actor, long item, int number, String layout) {
        Seen seen = seen(actor, item);
        VersionRow shown = versions.version(item, number).orElseThrow(NotThere::new);
        Paper paper = redlines.paper(shown.content(), layout).orElseThrow(NotThere::new);
        return new OnSheet(seen, paper, redlines.on(shown, paper, redlines.of(seen)));
    }

    /** The rounds of a document, the first one first: by it they are numbered. */
    public List<Long> rounds(long item) {
        List<Long> all = new ArrayList<>(rounds.roundsOf(item, ROUNDS));
        Collections.sort(all);
        return all;
    }

    /** Where a remark is seen on the version that the actor gets. */
    public String address(Actor actor, Remark remark) {
        int now = Math.max(remark.version(), seen(actor, remark.item()).version());
        return "/documents/" + remark.item() + "/versions/" + now + "/sheet?remark=" + remark.id();
    }
}
