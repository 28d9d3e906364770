package mintshelf.core.numbering;

import java.util.Optional;
import mintshelf.core.base.Refusal;

/** Numbers that are reserved ahead: how many, and who may use them. */
public final class RangeRules {
    /** Numbers in one range. */
    public static final int MOST = 1000;

    private RangeRules() {}

    /** Why so many cannot be reserved; nothing when they can. */
    public static Optional<Refusal> ask(int count) {
        if (count >= 1 && count <= MOST) return Optional.empty();
        return Optional.of(Refusal.of(
                "range.count",
                count < 1 ? "A range has at least one number." : "A range has at most " + MOST + " numbers.",
                "Write how many you need; nothing was reserved."));
    }

    /**
     * Why somebody may not use a number that is reserved; nothing when they may.
     *
     * @param forWhom the person whom it is for; empty where whoever files may type it
     * @param forName their name
     */
    public static Optional<Refusal> use(String number, Optional<Long> forWhom, String forName, long person) {
        if (forWhom.isEmpty() || forWhom.get() == person) return Optional.empty();
        return Optional.of(Refusal.of(
                "number.reserved",
                number + " is reserved for " + forName + ".",
                "Take the next of the series, or let them file it."));
    }
}
