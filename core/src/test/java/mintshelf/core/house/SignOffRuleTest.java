package mintshelf.core.house;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.core.signoff.WorkingDays;
import org.junit.jupiter.api.Test;

/** Sign-off rules and the calendar that they are due by: what they say, and what a house does not keep. */
class SignOffRuleTest {
    private static SignOffRule asking(SignOffLine... lines) {
        return new SignOffRule("check", "Check", List.of(lines), Policy.EVERYBODY_HEARD);
    }

    private static SignOffLine line(int step, Asked.Kind kind, String who, int needed, String field, int days) {
        return new SignOffLine(step, new Asked(kind, who), needed, "checked", field, "", days, false, true);
    }

    @Test
    void aSignOffRuleSaysWhomItAsksAndNamesWhatIsWrong() {
        SignOffRule good = asking(
                line(1, Asked.Kind.GROUP, "7", 2, "checked_by", 2),
                line(1, Asked.Kind.PERSON, "3", 1, "", 1),
                line(2, Asked.Kind.ROLE, "checker", SignOffLine.EVERYBODY, "", 3));
        assertThat(good.ask(RulesTest.HOUSE)).isEmpty();
        assertThat(good.lines(RulesTest.HOUSE))
                .extracting(RuleLine::says)
                .containsExactly(
                        "Check",
                        "2 of the group Checking sign as checked, due in 2 working days; whoever prepared it may sign"
                                + " too; the password is asked again; the title block's checked_by says who",
                        "Marit Solvang signs as checked, due in 1 working day; whoever prepared it may sign too; the"
                                + " password is asked again",
                        "all of the role Checker sign as checked, due in 3 working days; whoever prepared it may sign"
                                + " too; the password is asked again",
                        "everybody of the step is heard before a return ends the round");
        assertThat(RulesTest.codes(asking())).containsExactly("signoff.rule");
        assertThat(RulesTest.codes(asking(line(1, Asked.Kind.GROUP, "8", 1, "", 1))))
                .as("no such group")
                .hasSize(1);
        assertThat(RulesTest.codes(asking(line(1, Asked.Kind.PERSON, "3", 2, "", 1))))
                .as("one person twice")
                .hasSize(1);
        assertThat(RulesTest.codes(asking(line(2, Asked.Kind.ROLE, "checker", 1, "", 1))))
                .as("no first step")
                .hasSize(1);
        assertThat(RulesTest.codes(asking(
                        line(1, Asked.Kind.ROLE, "checker", 1, "", 1), line(3, Asked.Kind.ROLE, "checker", 1, "", 1))))
                .as("a step between")
                .hasSize(1);
        assertThat(RulesTest.codes(asking(line(1, Asked.Kind.ROLE, "checker", 51, "a field!", 251))))
                .hasSize(2);
        assertThat(RulesTest.codes(asking(
                        line(1, Asked.Kind.ROLE, "checker", 1, "by", 1),
                        line(2, Asked.Kind.ROLE, "checker", 1, "by", 1))))
                .as("one field twice")
                .hasSize(1);
    }

    /** Two readings of one route, each by a rule of its own: neither may come to write into the field of the other. */
    @Test
    void aSignOffRuleIsNotKeptThatOverwritesAnotherReading() {
        List<Stage> stages = List.of(
                RulesTest.PREPARATION,
                new Stage(1, "one", "One", StageClass.DECIDING, 2),
                new Stage(1, "two", "Two", StageClass.DECIDING, 3),
                new Stage(1, "out", "Out", StageClass.RELEASED, 4));
        List<Effect> opens = List.of(Effect.OPEN_ROUND);
        List<Effect> ends = List.of(Effect.END_ROUND);
        Route twice = new Route(
                5,
                "twice",
                "Twice",
                stages,
                List.of(
                        new Move("send", "Send", "preparation", "one", Right.CHANGE, List.of(), opens),
                        new Move("read", "Read", "one", "two", Right.SIGN, List.of(Gates.SIGNED_OFF), opens, "check"),
                        new Move(
                                "out", "Out", "two", "out", Right.SIGN, List.of(Gates.SIGNED_OFF), List.of(), "second"),
                        new Move("back", "Back", "one", "preparation", Right.CHANGE, List.of(), ends),
                        new Move("back-2", "Back", "two", "preparation", Right.CHANGE, List.of(), ends)));
        SignOffRule second = new SignOffRule(
                "second", "Second", List.of(line(1, Asked.Kind.ROLE, "checker", 1, "read_by", 1)), Policy.FIRST_RETURN);
        House house = new House(
                RulesTest.HOUSE.kinds(),
                RulesTest.HOUSE.series(),
                Map.of("twice", twice),
                RulesTest.HOUSE.facts(),
                Map.of("check", RulesTest.CHECK, "second", second),
                RulesTest.HOUSE.roles(),
                RulesTest.HOUSE.groups(),
                RulesTest.HOUSE.people(),
                RulesTest.HOUSE.shelves(),
                RulesTest.HOUSE.parts());
        assertThat(new RouteRule(twice).ask(house)).isEmpty();
        SignOffRule same = new SignOffRule(
                "second",
                "Second",
                List.of(line(1, Asked.Kind.ROLE, "checker", 1, "checked_by", 1)),
                Policy.FIRST_RETURN);
        assertThat(same.ask(house))
                .singleElement()
                .extracting(Refusal::says)
                .asString()
                .contains("On the route Twice", "writes into checked_by again");
        assertThat(second.ask(house)).isEmpty();
    }

    @Test
    void aCalendarLeavesADayToWorkOnAndKeepsTheNamesOfItsDays() {
        CalendarRule usual = new CalendarRule(
                WorkingDays.USUAL.weekend(),
                List.of(new CalendarRule.Holiday(LocalDate.parse("2026-11-30"), "Harbour day")));
        assertThat(usual.ask(RulesTest.HOUSE)).isEmpty();
        assertThat(usual.lines(RulesTest.HOUSE))
                .extracting(RuleLine::says)
                .containsExactly("Saturday, Sunday", "Harbour day");
        CalendarRule more = usual.with(
                Map.of(LocalDate.parse("2026-11-30"), "Another name", LocalDate.parse("2026-12-24"), "Christmas Eve"));
        assertThat(more.holidays())
                .extracting(CalendarRule.Holiday::name)
                .containsExactly("Harbour day", "Christmas Eve");
        assertThat(more.days().isWorking(LocalDate.parse("2026-12-24"))).isFalse();
        assertThat(RulesTest.codes(new CalendarRule(EnumSet.allOf(DayOfWeek.class), List.of())))
                .containsExactly("calendar.weekend");
        CalendarRule.Holiday twice = new CalendarRule.Holiday(LocalDate.parse("2026-12-24"), "Eve");
        assertThat(RulesTest.codes(new CalendarRule(Set.of(), List.of(twice, twice))))
                .containsExactly("calendar.twice");
    }
}
