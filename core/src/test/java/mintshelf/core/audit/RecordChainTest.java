package mintshelf.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.OptionalInt;
import java.util.OptionalLong;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.api.Test;

class RecordChainTest {
    private static RecordEntry entry(int seq, String says, String why) {
        return new RecordEntry(
                4,
                seq,
                Instant.parse("2026-11-17T08:00:00Z"),
                OptionalLong.of(2),
                "127.0.0.1",
                "version.added",
                OptionalLong.of(4),
                OptionalInt.of(3),
                says,
                why);
    }

    @Test
    void theSameEntryAfterTheSameHashGivesTheSameHash() {
        assertThat(RecordChain.next(RecordChain.START, entry(1, "a", "b")))
                .isEqualTo(RecordChain.next(RecordChain.START, entry(1, "a", "b")));
    }

    @Test
    void anyChangeAndAnyOtherPredecessorGiveAnotherHash() {
        ContentHash hash = RecordChain.next(RecordChain.START, entry(1, "a", "b"));
        assertThat(RecordChain.next(RecordChain.START, entry(1, "ab", ""))).isNotEqualTo(hash);
        assertThat(RecordChain.next(RecordChain.START, entry(2, "a", "b"))).isNotEqualTo(hash);
        assertThat(RecordChain.next(hash, entry(1, "a", "b"))).isNotEqualTo(hash);
    }
}
