package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.List;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.CheckSheets.Held;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.CheckRuleStore.Waiver;
import mintshelf.app.store.round.BesideStore;
import mintshelf.app.store.round.BesideStore.Found;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Component;

/** Keeps what goes with a round: what the checks said as it was sent, and the papers to look at. Within the caller's transaction. */
@Component
public class SentWith {
    private static final int MOST = 40;

    private final BesideStore beside;
    private final CheckSheets checks;
    private final VersionStore versions;

    public SentWith(BesideStore beside, CheckSheets checks, VersionStore versions) {
        this.beside = beside;
        this.checks = checks;
        this.versions = versions;
    }

    public void keep(long round, List<Seen> all, List<BesideStore.Paper> papers) {
        beside.lay(round, papers);
        var heads = versions.versionsById(
                all.stream().map(s -> s.document().head().version()).toList());
        for (Seen seen : all) {
            VersionRow head = heads.get(seen.document().head().version());
            if (head == null
                    || checks.rules(seen.document()).rules().severities().isEmpty()) continue;
            checks.findings(seen.document(), head)
                    .ifPresent(held -> beside.keep(round, seen.spine().id(), head.id(), found(head, held)));
        }
    }

    /** The papers of a round, for the one that follows it. */
    public List<BesideStore.Paper> papers(long round) {
        return beside.papers(round);
    }

    private static List<Found> found(VersionRow head, List<Held> held) {
        if (held.isEmpty()) return List.of(new Found(head.number(), false, "", "", java.util.Optional.empty()));
        List<Found> found = new ArrayList<>();
        for (Held one : held.subList(0, Math.min(MOST, held.size()))) {
            found.add(new Found(
                    head.number(),
                    one.finding().isBinding(),
                    Texts.shorten(one.finding().zone(), 8),
                    Texts.shorten(one.finding().says(), 500),
                    one.waiver().map(Waiver::words)));
        }
        if (held.size() > MOST) {
            String more = "And " + (held.size() - MOST) + " more, which stand on the page of its checks.";
            found.add(new Found(head.number(), false, "", more, java.util.Optional.empty()));
        }
        return found;
    }
}
