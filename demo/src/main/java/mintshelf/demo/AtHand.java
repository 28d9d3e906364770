package mintshelf.demo;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.pin.PinStore.Kind;
import mintshelf.app.store.pin.PinStore.Pin;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.use.pin.Pins;
import mintshelf.app.use.search.KeptSearches;

/** What people keep at hand: searches for themselves and for the drawing office, pins. */
final class AtHand extends Chapter {
    private final KeptSearches searches;
    private final Pins pins;

    AtHand(Book book) {
        super(book);
        this.searches = hands.bean(KeptSearches.class);
        this.pins = hands.bean(Pins.class);
    }

    void tell(long shelf) {
        hands.at(now.minus(Duration.ofDays(12)));
        Optional<Long> office = hands.bean(GroupStore.class).groups().stream()
                .filter(g -> g.name().equals("Drawing office"))
                .map(GroupStore.Group::id)
                .findFirst();
        keep(
                "priya",
                "In work, of 316L",
                "material:316L stage:\"in review\",\"in preparation\"",
                office,
                "material",
                "mass");
        keep("ines", "Changed, held by nobody", "is:pending held:nobody changed>14d", Optional.empty());
        keep("rafael", "Plates in force", "is:released title:plate", Optional.empty());
        for (Map.Entry<String, List<String>> one : Map.of(
                        "priya", List.of("3030", "2040", "4010"), "ines", List.of("1000", "3030"))
                .entrySet()) {
            pins.pin(hands.actor(one.getKey()), new Pin(Kind.SHELF, shelf));
            one.getValue().forEach(n -> pins.pin(hands.actor(one.getKey()), new Pin(Kind.ITEM, doc(n))));
        }
    }

    private void keep(String login, String name, String q, Optional<Long> group, String... facts) {
        List<String> columns = List.of(facts);
        searches.keep(
                hands.actor(login),
                Hands.key(),
                new KeptSearchStore.New(name, q, Ask.Order.FIT, false, group, columns),
                false);
    }
}
