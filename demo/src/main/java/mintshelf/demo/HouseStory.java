package mintshelf.demo;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.store.house.RouteStore.Made;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.core.house.CalendarRule;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.core.signoff.WorkingDays;

/** What Ines has made of the house's rules: its holidays, and a sign-off rule that nobody ships. */
final class HouseStory {
    private final RuleStore rules;
    private final GroupStore groups;

    HouseStory(RuleStore rules, GroupStore groups) {
        this.rules = rules;
        this.groups = groups;
    }

    /** @param marit whom the rule asks by name */
    void write(long ines, long marit, Instant at, LocalDate today) {
        List<CalendarRule.Holiday> days = new ArrayList<>();
        days.add(new CalendarRule.Holiday(today.with(TemporalAdjusters.next(DayOfWeek.MONDAY)), "Harbour day"));
        int year = today.getYear();
        for (int y = year; y <= year + 1; y++) {
            days.add(new CalendarRule.Holiday(LocalDate.of(y, 1, 1), "New Year"));
            days.add(new CalendarRule.Holiday(LocalDate.of(y, 12, 24), "Christmas Eve"));
            days.add(new CalendarRule.Holiday(LocalDate.of(y, 12, 25), "Christmas Day"));
            days.add(new CalendarRule.Holiday(LocalDate.of(y, 12, 26), "Second day of Christmas"));
        }
        rules.add(
                new CalendarRule(
                        WorkingDays.USUAL.weekend(), days.stream().distinct().toList()),
                new Made(OptionalLong.of(ines), at, "taken from a calendar file"));
        String checking = groups.groups().stream()
                .filter(g -> g.name().equals("Checking"))
                .map(g -> Long.toString(g.id()))
                .findFirst()
                .orElseThrow();
        String shop = groups.groups().stream()
                .filter(g -> g.name().equals("Shop"))
                .map(g -> Long.toString(g.id()))
                .findFirst()
                .orElseThrow();
        rules.add(
                new DistributionRule(List.of(toShop("drawing", shop), toShop("change-notice", shop))),
                new Made(OptionalLong.of(ines), at, "the shop gets the sheet by itself"));
        rules.add(
                new ChangeControlRule(List.of(
                        new ChangeControlRule.Sentence(
                                "template",
                                "",
                                ChangeControlRule.Starts.BY_SOME,
                                Optional.of(new Asked(Asked.Kind.ROLE, "data-manager")),
                                Optional.empty()),
                        new ChangeControlRule.Sentence(
                                "drawing",
                                "",
                                ChangeControlRule.Starts.BY_HAND,
                                Optional.empty(),
                                Optional.of(new Asked(Asked.Kind.PERSON, Long.toString(marit)))))),
                new Made(OptionalLong.of(ines), at, "templates are Ines's; quality hears of drawings"));
        SignOffLine read = new SignOffLine(
                1,
                new Asked(Asked.Kind.GROUP, checking),
                SignOffLine.EVERYBODY,
                "checked",
                "checked_by",
                "checked",
                2,
                true,
                false);
        SignOffLine lead =
                new SignOffLine(2, "board-member", 1, "approved for production", "approved_by", "approved", 3);
        SignOffLine quality = new SignOffLine(
                2, new Asked(Asked.Kind.PERSON, Long.toString(marit)), 1, "seen by quality", "", "", 3, true, true);
        rules.add(
                new SignOffRule(
                        "all-checkers-then-the-lead",
                        "All checkers, then the lead",
                        List.of(read, lead, quality),
                        Policy.EVERYBODY_HEARD),
                new Made(OptionalLong.of(ines), at, "for what goes under water"));
    }

    private static DistributionRule.Sentence toShop(String kind, String shop) {
        return new DistributionRule.Sentence(
                Moment.RELEASE,
                kind,
                "",
                new Asked(Asked.Kind.GROUP, shop),
                DistributionRule.Way.PDF,
                Optional.of(MailTime.AT_ONCE));
    }
}
