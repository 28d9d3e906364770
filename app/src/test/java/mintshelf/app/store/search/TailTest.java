package mintshelf.app.store.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** Rows that are numbered before they are there. */
class TailTest {
    private static final Instant NOW = Instant.parse("2026-11-24T08:00:00Z");

    private final TreeMap<Long, Long> rows = new TreeMap<>();
    private boolean breaks;
    private final Tail tail = new Tail(0);

    private final Tail.Rows reader = new Tail.Rows() {
        @Override
        public List<IndexSource.Moved> after(long place, int most) {
            if (breaks) throw new IllegalStateException("the database is away");
            return rows.tailMap(place, false).entrySet().stream()
                    .limit(most)
                    .map(e -> new IndexSource.Moved(e.getKey(), Optional.of(e.getValue())))
                    .toList();
        }

        @Override
        public List<IndexSource.Moved> at(Collection<Long> places) {
            return places.stream()
                    .filter(rows::containsKey)
                    .map(p -> new IndexSource.Moved(p, Optional.of(rows.get(p))))
                    .toList();
        }
    };

    private Set<Long> next(Instant now) {
        Set<Long> items = new HashSet<>();
        tail.next(reader, 100, now, items);
        return items;
    }

    @Test
    void whatComesLateIsReadWhenItComes() {
        rows.put(1L, 10L);
        rows.put(4L, 40L);
        assertThat(next(NOW)).containsExactlyInAnyOrder(10L, 40L);
        assertThat(tail.at()).isEqualTo(4);
        assertThat(tail.safe()).as("two and three may come yet").isEqualTo(1);
        assertThat(next(NOW)).isEmpty();
        rows.put(3L, 30L);
        assertThat(next(NOW.plusSeconds(5))).containsExactly(30L);
        assertThat(tail.safe()).isEqualTo(1);
        // Two was taken back: after a while nobody waits for it.
        assertThat(next(NOW.plus(Duration.ofMinutes(11)))).isEmpty();
        assertThat(tail.waits()).isFalse();
        assertThat(tail.safe()).isEqualTo(4);
    }

    @Test
    void whatWasReadBeforeItBrokeOffIsKept() {
        rows.put(2L, 20L);
        next(NOW);
        rows.put(1L, 10L);
        breaks = true;
        Set<Long> items = new HashSet<>();
        assertThatThrownBy(() -> tail.next(reader, 100, NOW, items)).isInstanceOf(IllegalStateException.class);
        assertThat(items).containsExactly(10L);
    }
}
