package mintshelf.app.store.house;

import java.time.Instant;
import mintshelf.core.house.Rule;

/**
 * An edition of a house rule.
 *
 * @param by name of who made it; empty for one that is shipped
 * @param why what was said with it; may be empty
 */
public record Edition(int number, String by, Instant at, String why, Rule rule) {
    public boolean isShipped() {
        return by.isEmpty();
    }
}
