package mintshelf.core.bom;

import java.util.Locale;
import java.util.Optional;

/** Where a part comes from. */
public enum Comes {
    /** Made in the house, or to its drawings: what it needs is bought or made too. */
    MADE,
    /** Bought as it is: what is inside is its maker's. */
    BOUGHT,
    /** Bought too, by a standard: screws, bearings, seals. */
    LIBRARY,
    /** No thing of its own: it stands for what is below it, which goes straight into what is above. */
    PHANTOM;

    /** As a fact says it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether it comes as it is, so that what is below it counts for nothing. */
    public boolean isWhole() {
        return this == BOUGHT || this == LIBRARY;
    }

    /** By its word; nothing for another. */
    public static Optional<Comes> of(String word) {
        for (Comes one : values()) if (one.word().equals(word)) return Optional.of(one);
        return Optional.empty();
    }
}
