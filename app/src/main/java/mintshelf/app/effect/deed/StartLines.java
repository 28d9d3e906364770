package mintshelf.app.effect.deed;

import java.util.List;
import java.util.Map;
import mintshelf.app.effect.ChangePaper;
import mintshelf.app.effect.StartRevision;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperLine;
import mintshelf.core.document.Document;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Component;

/** Begins the next revision of each line, reserved under the order; one that is under way already is taken along. */
@Component
class StartLines implements Deed {
    private final PaperStore orders;
    private final SpineStore spines;
    private final ChangePaper papers;
    private final StartRevision start;

    StartLines(PaperStore orders, SpineStore spines, ChangePaper papers, StartRevision start) {
        this.orders = orders;
        this.spines = spines;
        this.papers = papers;
        this.start = start;
    }

    @Override
    public Effect effect() {
        return Effect.START_LINES;
    }

    @Override
    public void carryOut(Setting setting, List<Mover> movers) {
        for (Mover order : movers) {
            List<PaperLine> lines = orders.lines(order.document().id());
            Map<Long, Spine> items =
                    spines.spines(lines.stream().map(PaperLine::item).toList());
            for (PaperLine line : lines) {
                if (!line.releases()) continue;
                Document document = items.get(line.item()).document();
                long revision = document.pending().isPresent()
                        ? document.pending().get().id()
                        : start.start(setting.actor(), document, why(order.document(), line), "");
                orders.setTo(line.id(), revision);
            }
            papers.write(
                    setting.actor(),
                    order.seen().spine().author(),
                    order.document().id(),
                    "reserved the revisions");
        }
    }

    private static String why(Document order, PaperLine line) {
        String says = line.reason().isEmpty() ? order.title() : line.reason();
        return Texts.shorten(order.number() + ": " + Texts.line(says), 200);
    }
}
