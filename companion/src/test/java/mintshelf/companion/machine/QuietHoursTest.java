package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class QuietHoursTest {
    private static boolean has(String hours, String time) {
        return QuietHours.read(hours).orElseThrow().has(LocalTime.parse(time));
    }

    @Test
    void theyGoFromTheFirstMinuteToTheOneBeforeTheLast() {
        assertThat(has("12:00-13:00", "11:59")).isFalse();
        assertThat(has("12:00-13:00", "12:00")).isTrue();
        assertThat(has("12:00-13:00", "12:59")).isTrue();
        assertThat(has("12:00-13:00", "13:00")).isFalse();
    }

    @Test
    void theyGoOverMidnightAndTwoTimesThatAreTheSameAreNone() {
        assertThat(has("18:00 - 7:30", "23:00")).isTrue();
        assertThat(has("18:00 - 7:30", "07:29")).isTrue();
        assertThat(has("18:00 - 7:30", "07:30")).isFalse();
        assertThat(has("18:00 - 7:30", "17:59")).isFalse();
        assertThat(has("08:00-08:00", "08:00")).isFalse();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "none", "18-7", "25:00-07:00", "18:00-07:61", "18:00"})
    void whatSaysNoTwoTimesIsNotRead(String text) {
        assertThat(QuietHours.read(text)).isEmpty();
    }

    @Test
    void theyAreWrittenAsTheyAreRead() {
        assertThat(QuietHours.read(QuietHours.read("9:05–17:00").orElseThrow().text()))
                .isEqualTo(QuietHours.read("9:05–17:00"));
    }
}
