package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.RequestRules;
import mintshelf.core.change.Similar;
import org.springframework.stereotype.Component;

/** Requests as they are asked for: of which documents one may be, which open ones are like it. */
@Component
public class Requests {
    /** Open requests that a new one is compared with, the latest first. */
    private static final int COMPARED = 500;

    private final Sight sight;
    private final RequestStore store;
    private final HouseStore house;
    private final ChangeControl control;

    public Requests(Sight sight, RequestStore store, HouseStore house, ChangeControl control) {
        this.sight = sight;
        this.store = store;
        this.house = house;
        this.control = control;
    }

    /** A document that a change is asked of, or why none is. */
    public record Row(Seen seen, Optional<Refusal> refusal) {}

    /** In the order asked for; those that the actor may not know of are left out. */
    public List<Row> rows(Actor actor, Collection<Long> items) {
        List<Row> rows = new ArrayList<>();
        for (Seen seen : sight.of(actor, items).values()) {
            Optional<Refusal> refusal = seen.spine().isChangePaper()
                    ? Optional.of(Refusal.of(
                            "change.paper",
                            seen.document().number() + " is a paper of a change itself.",
                            "Leave it out."))
                    : RequestRules.line(seen.document(), actor.access());
            rows.add(new Row(seen, refusal));
        }
        return rows;
    }

    /** Whether who wants a document changed writes a request first, as the house says. */
    public boolean asksFirst(Seen seen) {
        return control.now().starts(seen.spine()).asksFirst();
    }

    /** An open request that is like what somebody asks for, with the reason in words. */
    public record Like(Seen seen, String why) {}

    /** Open requests that the actor sees and that are like this one, the most first. */
    public List<Like> like(Actor actor, Similar.Of one, int most) {
        List<Similar> found = Similar.of(one, store.open(COMPARED), COMPARED);
        Map<Long, Seen> seen =
                sight.of(actor, found.stream().map(Similar::request).toList());
        return found.stream()
                .filter(s -> seen.containsKey(s.request()))
                .limit(most)
                .map(s -> new Like(seen.get(s.request()), s.why()))
                .toList();
    }

    /** The open requests on documents that the actor sees, the latest first. */
    public Map<Long, List<Seen>> openOn(Actor actor, Collection<Long> documents) {
        Map<Long, List<Long>> ids = store.openOn(documents);
        Set<Long> all = new LinkedHashSet<>();
        ids.values().forEach(all::addAll);
        Map<Long, Seen> seen = sight.of(actor, all);
        Map<Long, List<Seen>> on = new HashMap<>();
        ids.forEach((document, requests) -> on.put(
                document,
                requests.stream().filter(seen::containsKey).map(seen::get).toList()));
        return on;
    }
}
