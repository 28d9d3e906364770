package mintshelf.core.notice;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** When mails go out: hours and mornings of the receiver, also where the clock is put forth or back. */
class NoticeTest {
    @ParameterizedTest
    @CsvSource({
        "2026-11-27T08:50:00Z, Europe/Copenhagen, HOURLY, 2026-11-27T09:00:00Z",
        "2026-11-27T09:00:00Z, Europe/Copenhagen, HOURLY, 2026-11-27T10:00:00Z",
        "2026-11-27T05:59:00Z, Europe/Copenhagen, DAILY, 2026-11-27T06:00:00Z",
        "2026-11-27T06:00:00Z, Europe/Copenhagen, DAILY, 2026-11-28T06:00:00Z",
        "2026-11-27T23:30:00Z, Asia/Kathmandu, DAILY, 2026-11-28T01:15:00Z",
        "2026-11-27T08:50:00Z, Asia/Kathmandu, HOURLY, 2026-11-27T09:15:00Z",
        // The night in which the clock is put forth, and the one in which it is put back.
        "2026-03-28T20:00:00Z, Europe/Copenhagen, DAILY, 2026-03-29T05:00:00Z",
        "2026-10-24T20:00:00Z, Europe/Copenhagen, DAILY, 2026-10-25T06:00:00Z"
    })
    void hoursAndMorningsAreTheReceivers(Instant now, String zone, MailTime time, Instant next) {
        assertThat(time.next(now, ZoneId.of(zone))).contains(next);
    }

    @Test
    void whoIsAskedToSignLearnsOfItWithinADayWhateverTheyChoose() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            Instant now = Instant.ofEpochSecond(1_780_000_000L + random.nextInt(60_000_000));
            for (MailTime time : NoticeKind.ASKED.choices()) {
                Instant next = time.next(now, ZoneId.of("Europe/Copenhagen")).orElseThrow();
                assertThat(Duration.between(now, next)).isBetween(Duration.ZERO, Duration.ofHours(25));
            }
        }
        assertThat(NoticeKind.ASKED.choices()).doesNotContain(MailTime.NEVER);
        assertThat(MailTime.NEVER.next(Instant.EPOCH, ZoneId.of("UTC"))).isEmpty();
    }

    @Test
    void codesHaveAKind() {
        assertThat(NoticeKind.of("sign.reminded")).isEqualTo(NoticeKind.ASKED);
        assertThat(NoticeKind.of("signoff.fell")).isEqualTo(NoticeKind.ROUND);
        assertThat(NoticeKind.of("hold.asked")).isEqualTo(NoticeKind.HOLD);
        assertThat(NoticeKind.of("followed.release")).isEqualTo(NoticeKind.FOLLOWED);
        assertThat(NoticeKind.of("grants.given")).isEqualTo(NoticeKind.HOUSE);
        assertThat(Arrays.stream(NoticeKind.values()).allMatch(k -> k.choices().contains(k.usual())))
                .isTrue();
        assertThat(MailTime.named("DAILY")).contains(MailTime.DAILY);
        assertThat(MailTime.named("daily; drop table")).isEmpty();
    }

    @Test
    void momentsAreKeptAndReadBack() {
        Set<Moment> all = EnumSet.allOf(Moment.class);
        assertThat(Moment.kept(Moment.keep(all))).isEqualTo(all);
        assertThat(Moment.kept("")).isEmpty();
        assertThat(Moment.kept("RELEASE,EARTHQUAKE")).containsExactly(Moment.RELEASE);
        assertThat(all.stream().filter(Moment::isForReaders)).containsExactly(Moment.RELEASE);
    }
}
