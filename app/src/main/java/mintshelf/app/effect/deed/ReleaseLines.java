package mintshelf.app.effect.deed;

import java.util.List;
import java.util.Optional;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.SuccessorStore;
import mintshelf.app.store.round.BundleStore;
import mintshelf.core.change.PaperLine;
import mintshelf.core.route.Effect;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Issues and files the notice of an order whose lines go out in the same act, and ends the order. */
@Component
class ReleaseLines implements Deed {

    private final PaperStore orders;
    private final BundleStore bundles;
    private final SuccessorStore successors;
    private final IssueNotice notice;
    private final WriteOrderPage page;

    ReleaseLines(
            PaperStore orders,
            BundleStore bundles,
            SuccessorStore successors,
            IssueNotice notice,
            WriteOrderPage page) {
        this.orders = orders;
        this.bundles = bundles;
        this.successors = successors;
        this.notice = notice;
        this.page = page;
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
            List<PaperLine> lines = orders.lines(id);
            long notice = this.notice.issue(setting.actor(), order.seen(), lines, board, setting.now());
            page.write(order.seen(), board, setting.now());
            bundles.closeBundle(board.bundle(), setting.now());
            for (PaperLine line : lines) {
                line.successor()
                        .ifPresent(s ->
                                successors.keep(line.item(), s, setting.actor().person(), setting.now()));
            }
            orders.end(id, Optional.of(notice), "", setting.now());
        }
    }
}
