package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Optional;

/**
 * When a question that waits is said again: the working day before it is due, the working day after, and two working days after to whoever
 * keeps order there. After a night or a week without a server, only the latest of them is said: one mail, not three.
 */
public final class Reminders {
    /** Working days after the due day on which it is said once more, and on which it is raised. */
    static final int AFTER_DAYS = 1;

    static final int RAISED_DAYS = 2;

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
    public static Optional<Kind> today(LocalDate asked, LocalDate due, LocalDate today, WorkingDays days) {
        if (!today.isBefore(days.due(due, RAISED_DAYS))) return Optional.of(Kind.RAISED);
        if (!today.isBefore(days.due(due, AFTER_DAYS))) return Optional.of(Kind.AFTER);
        LocalDate before = days.before(due);
        boolean soon = !today.isBefore(before) && !today.isAfter(due) && asked.isBefore(before);
        return soon ? Optional.of(Kind.BEFORE) : Optional.empty();
    }
}
