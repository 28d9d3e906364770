package mintshelf.app.use.change;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.sight.ChangeControl;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.OpenOrderStore;
import org.springframework.stereotype.Service;

/** What is under way beside the house's change control: revisions that were started by hand and by today's sentences would not be. */
@Service
public class UnderWay {
    /** Revisions that are looked at. */
    private static final int MOST = 500;

    private final OpenOrderStore orders;
    private final Sight sight;
    private final ChangeControl control;

    public UnderWay(OpenOrderStore orders, Sight sight, ChangeControl control) {
        this.orders = orders;
        this.sight = sight;
        this.control = control;
    }

    /** @param more whether there may be others that were not looked at */
    public record View(List<Seen> documents, boolean more) {}

    /** For who keeps the house's rules; of what they see. They go on as they were begun, or are put on an order. */
    public View beside(Actor actor) {
        HouseRules.ask(actor);
        List<Long> items = orders.startedByHand(MOST);
        ChangeControl.Now now = control.now();
        return new View(
                sight.of(actor, items).values().stream()
                        .filter(s -> s.all() && now.starts(s.spine()).isByPaper())
                        .toList(),
                items.size() == MOST);
    }
}
