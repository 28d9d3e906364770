package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.change.FlowStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.change.PaperType;
import org.springframework.stereotype.Component;

/** The kinds of requests and orders that a house has: each with a number series, a route and facts of its own. */
@Component
public class PaperKinds {
    private final HouseStore house;
    private final FlowStore flow;

    public PaperKinds(HouseStore house, FlowStore flow) {
        this.house = house;
        this.flow = flow;
    }

    /** All of a type, the one that the actor used last first. */
    public List<Kind> offered(Actor actor, PaperType type) {
        List<Kind> kinds = new ArrayList<>(house.kinds(type));
        if (kinds.size() < 2) return kinds;
        Optional<Long> last = flow.lastKind(actor.person(), type);
        kinds.sort(Comparator.comparing(k -> last.filter(l -> l == k.id()).isEmpty()));
        return kinds;
    }

    /** The one of a code; the house's first where none is named. */
    public Kind of(PaperType type, Optional<String> code) {
        if (code.isEmpty()) return house.kind(type);
        return house.kinds(type).stream()
                .filter(k -> k.code().equals(code.get()))
                .findFirst()
                .orElseThrow(() -> Refused.because(
                        "paper.kind",
                        "The house has no such kind of " + (type == PaperType.ORDER ? "orders." : "requests."),
                        "Choose one of the list; nothing was asked for."));
    }
}
