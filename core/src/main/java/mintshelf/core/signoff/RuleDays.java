package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/** When the lines of a sign-off rule are asked, due, reminded and raised, when each step takes all the time it has. */
public final class RuleDays {
    private RuleDays() {}

    /**
     * The days of one line.
     *
     * @param asked on which it is asked at the latest: the first step at once, others when the step before is due
     * @param before the working day before it is due, on which it is reminded; the day it is asked where there is none between
     * @param after the working day on which it is reminded once more
     * @param raised the working day on which whoever keeps order is told
     */
    public record Span(
            SignOffLine line, LocalDate asked, LocalDate due, LocalDate before, LocalDate after, LocalDate raised) {
        public boolean isReminded() {
            return asked.isBefore(before);
        }
    }

    /** The spans of a rule's lines, in their order, when it is asked on a day. */
    public static List<Span> of(List<SignOffLine> lines, LocalDate sent, WorkingDays days) {
        List<Span> spans = new ArrayList<>();
        LocalDate asked = sent;
        LocalDate end = sent;
        int step = 0;
        int total = 0;
        int longest = 0;
        for (SignOffLine line : lines) {
            if (line.step() != step) {
                total += longest;
                longest = 0;
                asked = end;
                step = line.step();
            }
            longest = Math.max(longest, line.days());
            LocalDate due = days.due(sent, total + line.days());
            if (due.isAfter(end)) end = due;
            spans.add(new Span(
                    line,
                    asked,
                    due,
                    days.before(due),
                    days.due(due, Reminders.AFTER_DAYS),
                    days.due(due, Reminders.RAISED_DAYS)));
        }
        return spans;
    }

    /** When the last sign-off is there at the latest. */
    public static LocalDate end(List<Span> spans, LocalDate sent) {
        return spans.stream().map(Span::due).max(LocalDate::compareTo).orElse(sent);
    }
}
