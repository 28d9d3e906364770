package mintshelf.app.store.house;

import java.time.Instant;

/**
 * Which edition of a rule it is, who made it when and why.
 *
 * @param by name of who made it; empty for one that is shipped
 * @param why what was said with it; may be empty
 */
public record EditionNote(int number, String by, Instant at, String why) {
    public boolean isShipped() {
        return by.isEmpty();
    }

    static EditionNote shipped(int number) {
        return new EditionNote(number, "", Instant.EPOCH, "");
    }
}
