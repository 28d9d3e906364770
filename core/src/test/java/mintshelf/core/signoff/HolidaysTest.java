package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Map;
import java.util.TimeZone;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Calendar files: days, spans, what repeats, what has an hour, what is none. */
class HolidaysTest {
    private static final LocalDate FROM = LocalDate.parse("2026-01-01");
    private static final LocalDate UNTIL = LocalDate.parse("2029-01-01");
    private final TimeZone machine = TimeZone.getDefault();

    @AfterEach
    void zone() {
        TimeZone.setDefault(machine);
    }

    private static String calendar(String... events) {
        StringBuilder text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Ebbcote//days//EN\r\n");
        for (String e : events) {
            text.append("BEGIN:VEVENT\r\nUID:")
                    .append(e.hashCode())
                    .append("\r\n")
                    .append(e)
                    .append("\r\nEND:VEVENT\r\n");
        }
        return text.append("END:VCALENDAR\r\n").toString();
    }

    private static Map<LocalDate, String> read(String... events) {
        return Holidays.read(calendar(events), FROM, UNTIL) instanceof Outcome.Granted<Map<LocalDate, String>> granted
                ? granted.value()
                : Map.of();
    }

    private static String refused(String text) {
        return Holidays.read(text, FROM, UNTIL).refusal().map(Refusal::says).orElse("");
    }

    /** Whatever zone the server stands in, a day is that day. */
    @ParameterizedTest
    @ValueSource(strings = {"UTC", "Pacific/Auckland", "America/Los_Angeles", "Asia/Kathmandu"})
    void anAllDayEventIsThatDay(String zone) {
        TimeZone.setDefault(TimeZone.getTimeZone(zone));
        assertThat(read("DTSTART;VALUE=DATE:20261130\r\nSUMMARY:Harbour day"))
                .containsExactly(Map.entry(LocalDate.parse("2026-11-30"), "Harbour day"));
        assertThat(read("DTSTART;VALUE=DATE:20261224\r\nDTEND;VALUE=DATE:20261227\r\nSUMMARY:Christmas"))
                .containsOnlyKeys(
                        LocalDate.parse("2026-12-24"), LocalDate.parse("2026-12-25"), LocalDate.parse("2026-12-26"));
        assertThat(read("DTSTART;VALUE=DATE:20200501\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:First of May"))
                .containsOnlyKeys(
                        LocalDate.parse("2026-05-01"), LocalDate.parse("2027-05-01"), LocalDate.parse("2028-05-01"));
    }

    @Test
    void whatHasAnHourIsNobodysHoliday() {
        assertThat(refused(calendar("DTSTART:20261130T090000Z\r\nDTEND:20261130T100000Z\r\nSUMMARY:Meeting")))
                .contains("no all-day event");
    }

    @Test
    void namesAreOneLineAndDaysWithoutOneAreHolidays() {
        assertThat(read("DTSTART;VALUE=DATE:20261130\r\nSUMMARY:A long\\nname")).containsValue("A long name");
        assertThat(read("DTSTART;VALUE=DATE:20261130")).containsValue("Holiday");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "hello", "BEGIN:VCARD\r\nEND:VCARD\r\n", "<xml/>", "BEGIN:VCALENDAR"})
    void whatIsNoCalendarIsRefusedInWords(String text) {
        assertThat(refused(text)).isNotEmpty().contains("Nothing was changed");
    }

    @Test
    void whatNeverEndsOrIsTooMuchIsRefused() {
        assertThat(refused(calendar("DTSTART;VALUE=DATE:20260101\r\nDTEND;VALUE=DATE:99990101\r\nSUMMARY:Ever")))
                .contains("takes");
        assertThat(refused(calendar("DTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ=DAILY\r\nSUMMARY:Each day")))
                .contains("more than 1000 holidays");
        assertThat(refused("x".repeat(Holidays.MOST_LETTERS + 1))).contains("longer than");
    }

    /** Rules of repetition that nobody can follow end all the same. */
    @ParameterizedTest
    @Timeout(20)
    @ValueSource(
            strings = {
                "FREQ=YEARLY;BYMONTH=13",
                "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30",
                "FREQ=SECONDLY",
                "FREQ=DAILY;INTERVAL=0",
                "FREQ=YEARLY;BYYEARDAY=400",
                "FREQ=MONTHLY;BYDAY=60MO",
                "FREQ=NEVER",
                "FREQ=YEARLY;COUNT=2000000000;UNTIL=20261231"
            })
    void whatCannotBeFollowedEnds(String rule) {
        String text = calendar("DTSTART;VALUE=DATE:20250101\r\nRRULE:" + rule + "\r\nSUMMARY:Never");
        Outcome<Map<LocalDate, String>> read = Holidays.read(text, FROM, UNTIL);
        if (read instanceof Outcome.Granted<Map<LocalDate, String>> granted) {
            assertThat(granted.value().keySet()).allMatch(d -> !d.isBefore(FROM) && !d.isAfter(UNTIL));
        } else {
            assertThat(read.refusal().orElseThrow().reason()).isNotEmpty();
        }
    }
}
