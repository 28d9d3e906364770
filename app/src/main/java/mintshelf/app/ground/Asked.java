package mintshelf.app.ground;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import mintshelf.core.base.ContentHash;

/**
 * With what the request under way on this thread asks: its address and all that it sends. The key of an act belongs to that; the same
 * key with another body is another act.
 */
public final class Asked {
    private static final ThreadLocal<ContentHash> NOW = new ThreadLocal<>();

    private Asked() {}

    /** @param all the address and what was sent, in one order */
    public static void with(String all) {
        NOW.set(ContentHash.compute(all.getBytes(StandardCharsets.UTF_8)));
    }

    public static void nothing() {
        NOW.remove();
    }

    /** Empty where no request stands behind the act. */
    static Optional<ContentHash> now() {
        return Optional.ofNullable(NOW.get());
    }
}
