package mintshelf.app.store.search;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * Where one has read on to in rows that are numbered as they come. Numbers are given before transactions end: one that is missing may
 * come yet, and is asked for again until it is too old to come.
 */
final class Tail {
    private static final Duration LATEST = Duration.ofMinutes(10);
    private static final int MOST_MISSING = 20_000;

    private final TreeMap<Long, Instant> missing = new TreeMap<>();
    private long at;

    Tail(long at) {
        this.at = at;
    }

    /** Reads rows behind a place, and rows at places. */
    interface Rows {
        List<IndexSource.Moved> after(long place, int most);

        List<IndexSource.Moved> at(Collection<Long> places);
    }

    /**
     * Reads on.
     *
     * @param items gets the documents that moved since, up to about {@code most}: also where reading breaks off half way, for what was
     *     read once is not read again
     */
    void next(Rows rows, int most, Instant now, Set<Long> items) {
        if (!missing.isEmpty()) {
            for (IndexSource.Moved late : rows.at(List.copyOf(missing.keySet()))) {
                missing.remove(late.tail());
                late.item().ifPresent(items::add);
            }
            for (Iterator<Map.Entry<Long, Instant>> all = missing.entrySet().iterator(); all.hasNext(); ) {
                if (all.next().getValue().isBefore(now.minus(LATEST))) all.remove();
            }
        }
        for (IndexSource.Moved moved : rows.after(at, most)) {
            for (long gap = at + 1; gap < moved.tail() && missing.size() < MOST_MISSING; gap++) missing.put(gap, now);
            at = Math.max(at, moved.tail());
            moved.item().ifPresent(items::add);
        }
    }

    long at() {
        return at;
    }

    /** Whether something may come yet that was missing. */
    boolean waits() {
        return !missing.isEmpty();
    }

    /** From where another one has to read on who did not wait for what is missing. */
    long safe() {
        return missing.isEmpty() ? at : missing.firstKey() - 1;
    }
}
