package mintshelf.core.signoff;

import java.time.LocalDate;
import java.util.Optional;
import mintshelf.core.base.Refusal;

/**
 * Days on which somebody is not there, both included.
 *
 * @param deputy who signs for them meanwhile; empty for nobody
 * @param deputyName name of that person, empty without one
 */
public record Away(LocalDate from, LocalDate until, Optional<Long> deputy, String deputyName) {
    private static final int LONGEST_DAYS = 366;
    /** Years before and after today in which days are noted. */
    private static final int FAR = 5;

    public boolean covers(LocalDate day) {
        return !day.isBefore(from) && !day.isAfter(until);
    }

    private boolean meets(Away other) {
        return !other.until().isBefore(from) && !other.from().isAfter(until);
    }

    /** What is told of whoever is to stand in. */
    public record Deputy(long person, String name, boolean left, Optional<Away> away) {}

    /**
     * What is wrong with being away so; empty when nothing is. A deputy who is away on one of the days, or for whom the person stands in
     * then, would leave a question with nobody.
     *
     * @param deputy who was named, as they stand
     */
    public static Optional<Refusal> ask(
            long person, LocalDate from, LocalDate until, Optional<Deputy> deputy, LocalDate today) {
        if (from.isBefore(today.minusYears(FAR)) || from.isAfter(today.plusYears(FAR))) {
            return no("away.days", "That is too far from today.", "Correct the days.");
        }
        if (until.isBefore(from)) return no("away.days", "It ends before it begins.", "Correct the days.");
        if (until.isBefore(today)) return no("away.past", "Those days are over.", "Correct the days.");
        if (until.isAfter(from.plusDays(LONGEST_DAYS))) {
            return no("away.long", "That is more than a year.", "Correct the days.");
        }
        if (deputy.isEmpty()) return Optional.empty();
        Deputy other = deputy.get();
        if (other.person() == person) return no("away.self", "Nobody stands in for themselves.", "Name somebody else.");
        if (other.left()) return no("away.left", other.name() + " has left.", "Name somebody else.");
        Away days = new Away(from, until, Optional.of(other.person()), other.name());
        Optional<Away> theirs = other.away().filter(days::meets);
        if (theirs.isPresent()) {
            boolean circle = theirs.get().deputy().filter(d -> d == person).isPresent();
            return no(
                    "away.deputy",
                    circle
                            ? other.name() + " is away too on some of these days, and named you for them."
                            : other.name() + " is away too on some of these days.",
                    "Name somebody who is there.");
        }
        return Optional.empty();
    }

    private static Optional<Refusal> no(String code, String reason, String remedy) {
        return Optional.of(Refusal.of(code, reason, remedy + " Nothing was changed."));
    }
}
