package mintshelf.app.page.house;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.house.CalendarRule;
import mintshelf.core.house.Subject;
import mintshelf.core.signoff.Holidays;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The calendar of the house: its weekend and its holidays, typed or taken from a calendar file. */
@Controller
public class CalendarPages {
    /** Years ahead for which repeating events are taken in. */
    private static final int AHEAD = 3;

    private static final int MORE_ROWS = 3;

    private final ReadRules read;
    private final KeepRules keep;
    private final Settings settings;
    private final Clock clock;

    public CalendarPages(ReadRules read, KeepRules keep, Settings settings, Clock clock) {
        this.read = read;
        this.keep = keep;
        this.settings = settings;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(settings.zone()));
    }

    @GetMapping("/house/calendar")
    String calendar(
            Actor actor, @RequestParam Optional<Integer> beside, @RequestParam Optional<Integer> added, Model model) {
        CalendarRule rule = rule(actor, beside, model);
        model.addAttribute("calendar", rule);
        model.addAttribute("rows", rule.holidays().size() + MORE_ROWS);
        model.addAttribute("weekdays", DayOfWeek.values());
        model.addAttribute("added", added.orElse(null));
        model.addAttribute("ahead", AHEAD);
        return "house/calendar";
    }

    private CalendarRule rule(Actor actor, Optional<Integer> beside, Model model) {
        return (CalendarRule) RulePages.editions(read, actor, Subject.CALENDAR, CalendarRule.CODE, beside, model)
                .get(0)
                .rule();
    }

    @PostMapping("/house/calendar")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam(defaultValue = "") List<String> weekend,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        List<CalendarRule.Holiday> holidays = new ArrayList<>();
        for (int i = 0; i < Holidays.MOST + MORE_ROWS; i++) {
            String day = form.getOrDefault("day." + i, "").strip();
            if (day.isEmpty()) continue;
            holidays.add(new CalendarRule.Holiday(
                    SignOffPages.day(day)
                            .orElseThrow(() -> Refused.because(
                                    "calendar.day",
                                    "“" + Texts.shorten(Texts.line(day), 20) + "” is no day.",
                                    "Write it as 2026-12-24; nothing was changed.")),
                    form.getOrDefault("name." + i, "").strip()));
        }
        Set<DayOfWeek> free = EnumSet.noneOf(DayOfWeek.class);
        for (DayOfWeek d : DayOfWeek.values()) if (weekend.contains(d.name())) free.add(d);
        return "redirect:" + keep.keep(actor, actKey, new CalendarRule(free, holidays), edition, why);
    }

    /** Takes the all-day events of a calendar file as holidays; days that have a name already keep it. */
    @PostMapping("/house/calendar/file")
    String takeIn(Actor actor, @RequestParam String actKey, @RequestParam int edition, @RequestParam String text) {
        CalendarRule now = (CalendarRule)
                read.editions(actor, Subject.CALENDAR, CalendarRule.CODE).get(0).rule();
        Outcome<Map<LocalDate, String>> days = Holidays.read(text, today().minusYears(1), today().plusYears(AHEAD));
        CalendarRule with = now.with(days.orElseThrow(Refused::new));
        int added = with.holidays().size() - now.holidays().size();
        String to = keep.keep(actor, actKey, with, edition, "taken from a calendar file");
        return "redirect:" + to + "?added=" + added;
    }
}
