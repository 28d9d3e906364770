package mintshelf.core.signoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.access.Role;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Reminders.Kind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Away and late: who stands in, who is reminded when. */
class AwayTest {
    /** A Tuesday. */
    private static final LocalDate TODAY = LocalDate.parse("2026-11-24");

    private static final long OLUWASEUN = 1;
    private static final long CARMEN = 2;
    private static final Place PLACE = new Place(1, List.of(2L), 3);

    private static Away.Deputy carmen(Optional<Away> away) {
        return new Away.Deputy(CARMEN, "Carmen Uribe", false, away);
    }

    private static Away days(String from, String until, Optional<Long> deputy) {
        return new Away(LocalDate.parse(from), LocalDate.parse(until), deputy, "D");
    }

    private static String asked(String from, String until, Optional<Away.Deputy> deputy) {
        return Away.ask(OLUWASEUN, LocalDate.parse(from), LocalDate.parse(until), deputy, TODAY)
                .map(Refusal::code)
                .orElse("");
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-25, 2026-12-04, ''",
        "2026-11-24, 2026-11-24, ''",
        "2026-11-01, 2026-11-24, ''",
        "2026-12-04, 2026-11-25, away.days",
        "2026-11-01, 2026-11-23, away.past",
        "2026-11-25, 2028-11-25, away.long",
        "+999999999-12-30, +999999999-12-31, away.days",
        "-999999999-01-01, 2026-12-31, away.days"
    })
    void daysAreDays(String from, String until, String code) {
        assertThat(asked(from, until, Optional.empty())).isEqualTo(code);
    }

    @Test
    void whoStandsInIsThereOnAllTheDays() {
        assertThat(asked("2026-11-25", "2026-12-04", Optional.of(carmen(Optional.empty()))))
                .isEmpty();
        assertThat(asked(
                        "2026-11-25",
                        "2026-12-04",
                        Optional.of(carmen(Optional.of(days("2026-12-05", "2026-12-06", Optional.empty()))))))
                .as("away afterwards")
                .isEmpty();
        Optional<Away> same = Optional.of(days("2026-12-04", "2026-12-06", Optional.of(OLUWASEUN)));
        Refusal circle = Away.ask(
                        OLUWASEUN,
                        LocalDate.parse("2026-11-25"),
                        LocalDate.parse("2026-12-04"),
                        Optional.of(carmen(same)),
                        TODAY)
                .orElseThrow();
        assertThat(circle.code()).isEqualTo("away.deputy");
        assertThat(circle.reason()).contains("named you for them");
        assertThat(asked(
                        "2026-11-25",
                        "2026-12-04",
                        Optional.of(new Away.Deputy(OLUWASEUN, "O", false, Optional.empty()))))
                .isEqualTo("away.self");
        assertThat(asked("2026-11-25", "2026-12-04", Optional.of(new Away.Deputy(CARMEN, "C", true, Optional.empty()))))
                .isEqualTo("away.left");
    }

    private static Access with(long person, String role) {
        return new Access(
                person,
                "P",
                List.of(new Grant(1, "x", new Role(role, role, Set.of(Right.SIGN)), Scope.EVERYWHERE, "")));
    }

    /** Who stands in answers what names the other, on those days and with the role that is asked; never what they worked on. */
    @Test
    void aDeputyAnswersWhileTheOtherIsAwayAndNoLonger() {
        Ask ask = new Ask(
                11,
                new SignOffLine(1, "board-member", 1, "approved", "", "", 2),
                "Board member",
                Optional.of(OLUWASEUN),
                "Oluwaseun Adebari",
                TODAY,
                Optional.of(days("2026-11-24", "2026-11-26", Optional.of(CARMEN))),
                Set.of());
        Round round = new Round(
                1,
                1,
                9,
                "P",
                Instant.EPOCH,
                "",
                Round.State.OPEN,
                Policy.FIRST_RETURN,
                Optional.empty(),
                List.of(ask),
                List.of());
        Access carmen = with(CARMEN, "board-member");
        assertThat(refused(round, ask, carmen, Set.of(), TODAY)).isEmpty();
        assertThat(refused(round, ask, carmen, Set.of(), TODAY.plusDays(3))).isEqualTo("sign.other");
        assertThat(refused(round, ask, carmen, Set.of(), TODAY.minusDays(1))).isEqualTo("sign.other");
        assertThat(refused(round, ask, carmen, Set.of(CARMEN), TODAY)).isEqualTo("sign.own");
        assertThat(refused(round, ask, with(CARMEN, "checker"), Set.of(), TODAY))
                .isEqualTo("sign.role");
        assertThat(refused(round, ask, with(OLUWASEUN, "board-member"), Set.of(), TODAY))
                .as("who is away may sign all the same")
                .isEmpty();
        assertThat(refused(round, ask, with(5, "board-member"), Set.of(), TODAY))
                .isEqualTo("sign.other");
    }

    private static String refused(Round round, Ask ask, Access access, Set<Long> authors, LocalDate day) {
        return SignOffRules.ask(round, ask, access, authors, List.of(PLACE), day)
                .map(Refusal::code)
                .orElse("");
    }

    @Test
    void aSignatureSaysForWhom() {
        SignOff own = new SignOff(1, 1, "Carmen Uribe", Decision.SIGNED, "", Instant.EPOCH, Optional.empty(), "", "");
        SignOff other = new SignOff(
                1, 1, "Carmen Uribe", Decision.SIGNED, "", Instant.EPOCH, Optional.empty(), "", "Oluwaseun Adebari");
        assertThat(own.signer()).isEqualTo("Carmen Uribe");
        assertThat(other.signer()).isEqualTo("Carmen Uribe for Oluwaseun Adebari");
    }

    @ParameterizedTest
    @CsvSource({
        // asked, due, today, said
        "2026-11-20, 2026-11-26, 2026-11-24, ''",
        "2026-11-20, 2026-11-26, 2026-11-25, BEFORE",
        "2026-11-20, 2026-11-26, 2026-11-26, BEFORE",
        "2026-11-25, 2026-11-26, 2026-11-26, ''",
        "2026-11-20, 2026-11-26, 2026-11-27, AFTER",
        "2026-11-20, 2026-11-26, 2026-11-29, AFTER",
        "2026-11-20, 2026-11-26, 2026-11-30, RAISED",
        "2026-11-20, 2026-11-26, 2027-03-01, RAISED",
        // Due on a Monday: the working day before is the Friday.
        "2026-11-20, 2026-11-30, 2026-11-26, ''",
        "2026-11-20, 2026-11-30, 2026-11-27, BEFORE",
        "2026-11-20, 2026-11-30, 2026-11-28, BEFORE"
    })
    void itIsSaidAgainByTheCalendar(String asked, String due, String today, String said) {
        assertThat(Reminders.today(
                                LocalDate.parse(asked), LocalDate.parse(due), LocalDate.parse(today), WorkingDays.USUAL)
                        .map(Kind::name)
                        .orElse(""))
                .isEqualTo(said);
    }

    /** Whatever days the server was awake, a question is said at most three times, in the order in which it gets late. */
    @Test
    void neverMoreThanThreeTimesAndNeverBackwards() {
        Random random = new Random(7);
        for (int round = 0; round < 500; round++) {
            LocalDate asked = TODAY.plusDays(random.nextInt(30));
            LocalDate due = WorkingDays.USUAL.due(asked, random.nextInt(6));
            List<Kind> said = new ArrayList<>();
            for (LocalDate day = asked; day.isBefore(asked.plusDays(40)); day = day.plusDays(1 + random.nextInt(4))) {
                Optional<Kind> now = Reminders.today(asked, due, day, WorkingDays.USUAL);
                if (now.isPresent() && !said.contains(now.get())) said.add(now.get());
            }
            assertThat(said).isSorted().endsWith(Kind.RAISED).hasSizeLessThanOrEqualTo(3);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-24, 2026-11-24, 0",
        "2026-11-24, 2026-11-25, 1",
        "2026-11-20, 2026-11-22, 0",
        "2026-11-20, 2026-11-24, 2",
        "2026-11-30, 2026-11-24, 0"
    })
    void workingDaysOverAreCounted(String due, String today, int over) {
        assertThat(WorkingDays.USUAL.over(LocalDate.parse(due), LocalDate.parse(today)))
                .isEqualTo(over);
    }
}
