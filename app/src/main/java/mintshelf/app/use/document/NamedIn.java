package mintshelf.app.use.document;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NamedByStore;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.core.base.Numbers;
import org.springframework.stereotype.Component;

/** Where a document is named: in what it stands, on which orders, from where it is linked, in which rounds. */
@Component
class NamedIn {
    private final NamedByStore named;
    private final Sight sight;
    private final Settings settings;
    private final TrialStore trials;

    NamedIn(NamedByStore named, Sight sight, Settings settings, TrialStore trials) {
        this.trials = trials;
        this.named = named;
        this.sight = sight;
        this.settings = settings;
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    /** The places, in words; those that the actor may not know of are told without a name. */
    List<String> places(Actor actor, long item) {
        List<Long> parents = named.parents(item);
        List<Long> orders = named.orders(item);
        List<Long> linked = named.linkedFrom(item);
        Set<Long> all = new LinkedHashSet<>(parents);
        all.addAll(orders);
        all.addAll(linked);
        Map<Long, Seen> seen = sight.of(actor, all);
        List<String> places = new ArrayList<>();
        say(places, parents, seen, ", which it stands in");
        say(places, orders, seen, ", the order that it is on");
        say(places, linked, seen, ", which links to it");
        named.rounds(item).forEach(at -> places.add("the round of " + DAY.format(at.atZone(settings.zone()))));
        int open = trials.open(List.of(item)).getOrDefault(item, 0);
        if (open > 0) places.add(Numbers.count(open, "trial", "trials") + " under way on it");
        long hidden = all.stream().filter(id -> !seen.containsKey(id)).count();
        if (hidden > 0) places.add(Numbers.count(hidden, "document", "documents") + " that you do not see");
        return places;
    }

    private static void say(List<String> places, List<Long> items, Map<Long, Seen> seen, String how) {
        for (long id : items) {
            if (seen.containsKey(id)) places.add(seen.get(id).document().number() + how);
        }
    }
}
