package mintshelf.app.sight;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.NumberStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** Documents by their numbers, of those that somebody sees. */
@Component
public class Numbered {
    private final Sight sight;
    private final NumberStore numbers;

    public Numbered(Sight sight, NumberStore numbers) {
        this.sight = sight;
        this.numbers = numbers;
    }

    /** Those of a number in the order in which they were filed; none for a text that is no number. */
    public List<Seen> all(Actor actor, String number) {
        if (!(NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key)) return List.of();
        return sight.of(actor, numbers.items(key.value())).values().stream()
                .sorted(Comparator.comparing(s -> s.spine().id()))
                .toList();
    }

    /** The first of a number that is another than an item. */
    public Optional<Seen> other(Actor actor, long item, String number) {
        return all(actor, number).stream().filter(s -> s.spine().id() != item).findFirst();
    }
}
