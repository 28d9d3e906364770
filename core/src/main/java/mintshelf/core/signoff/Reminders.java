package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Optional;

/**
 * When a question that waits is said again: the working day before it is due, the working day after, and two working days after to whoever
 * keeps order there. After a night or a week without a server, only the latest of them is said: one mail, not three.
 */
public final class Reminders {
    /** What is said, in the order in which a question gets late. */
    public enum Kind {
        BEFORE,
        AFTER,
        RAISED
    }

    private Reminders() {}

    /**
     * What is to be said today; empty for nothing.
     *
     * @param asked the day on which the question was put: one that was due at once is not reminded the day before
     */
    public static Optional<Kind> today(LocalDate asked, LocalDate due, LocalDate today) {
        if (!today.isBefore(SignOffRules.due(due, 2))) return Optional.of(Kind.RAISED);
        if (!today.isBefore(SignOffRules.due(due, 1))) return Optional.of(Kind.AFTER);
        LocalDate before = before(due);
        boolean soon = !today.isBefore(before) && !today.isAfter(due) && asked.isBefore(before);
        return soon ? Optional.of(Kind.BEFORE) : Optional.empty();
    }

    /** The working day before a day. */
    private static LocalDate before(LocalDate day) {
        LocalDate earlier = day.minusDays(1);
        while (!SignOffRules.isWorkingDay(earlier)) earlier = earlier.minusDays(1);
        return earlier;
    }

    /** How many working days a question is over its day; 0 for one that is not. */
    public static int over(LocalDate due, LocalDate today) {
        int days = 0;
        for (LocalDate day = due; day.isBefore(today); ) {
            day = day.plusDays(1);
            if (SignOffRules.isWorkingDay(day)) days++;
        }
        return days;
    }
}
