package mintshelf.app.effect.deed;

import java.util.List;
import java.util.Optional;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.round.BundleStore;
import mintshelf.core.route.Effect;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Issues and files the notice of an order whose lines go out in the same act, and ends the order. */
@Component
class ReleaseLines implements Deed {

    private final PaperStore orders;
    private final BundleStore bundles;
    private final IssueNotice notice;

    ReleaseLines(PaperStore orders, BundleStore bundles, IssueNotice notice) {
        this.orders = orders;
        this.bundles = bundles;
        this.notice = notice;
    }

    @Override
    public Effect effect() {
        return Effect.RELEASE_LINES;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        Round board = setting.round().orElseThrow();
        for (Mover order : movers) {
            long id = order.document().id();
            long notice = this.notice.issue(setting.actor(), order.seen(), orders.lines(id), board, setting.now());
            bundles.closeBundle(board.bundle(), setting.now());
            orders.end(id, Optional.of(notice), "", setting.now());
        }
    }
}
