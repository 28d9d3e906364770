package mintshelf.app.ground;

import java.util.LinkedHashMap;
import java.util.Map;

/** Keeps what was asked for last. */
public final class Recent {
    private Recent() {}

    /** A map that lets go what was not asked for the longest, beyond {@code most}; its users guard it themselves. */
    public static <K, V> Map<K, V> most(int most) {
        return new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > most;
            }
        };
    }
}
