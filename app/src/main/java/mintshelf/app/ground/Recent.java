package mintshelf.app.ground;

import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Map;

/** Keeps what was asked for last. */
public final class Recent {
    private Recent() {}

    /** A map for many threads that lets go what was asked for least, beyond {@code most}, soon after it is full. */
    public static <K, V> Map<K, V> most(int most) {
        return Caffeine.newBuilder()
                .maximumSize(most)
                .executor(Runnable::run)
                .<K, V>build()
                .asMap();
    }
}
