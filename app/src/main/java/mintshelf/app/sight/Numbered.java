package mintshelf.app.sight;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.NumberStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
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

    /** What takes the place of something that is withdrawn; refused where the number is of nothing that somebody could take instead. */
    public Seen successor(Actor actor, long item, String number) {
        Seen named = other(actor, item, number)
                .orElseThrow(() -> Refused.because(
                        "number.unknown",
                        "No other document that you see has the number " + number.strip() + ".",
                        "Write the number of one, or leave it empty; nothing was changed."));
        if (named.document().dropped() || named.current().stage().stageClass() == StageClass.WITHDRAWN) {
            throw Refused.because(
                    "successor.gone",
                    named.document().number() + " is not to be worked from itself.",
                    "Name one that is in force or becomes so; nothing was changed.");
        }
        return named;
    }
}
