package mintshelf.core.next;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The one act that a page of several documents offers, and on which of them: the most pressing of what each of them offers by itself.
 *
 * @param items in the order in which they were given
 */
public record Together(Act act, List<Long> items) {
    /** What waits for the person comes first, then what is under way, then what could be begun. */
    private static final List<Act> PRESSING = List.of(
            Act.SIGN, Act.CHECK_IN, Act.SEND, Act.CHECK_OUT, Act.CHANGE_FACTS, Act.START_REVISION, Act.ASK_FOR_CHANGE);

    public Together {
        items = List.copyOf(items);
    }

    /** Nothing where none of them offers more than to be looked at. */
    public static Optional<Together> of(Map<Long, Act> offered) {
        for (Act act : PRESSING) {
            List<Long> items = offered.entrySet().stream()
                    .filter(e -> e.getValue() == act)
                    .map(Map.Entry::getKey)
                    .toList();
            if (!items.isEmpty()) return Optional.of(new Together(act, items));
        }
        return Optional.empty();
    }
}
