package mintshelf.core.change;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;

/**
 * Work that somebody gives to a person, or to a group of which the first to take it has it.
 *
 * @param paper id of the order that it is for; empty for a job alone
 * @param what is to be done
 * @param group id of the group that it was given to
 * @param person id of who has it; empty while nobody of the group has taken it
 * @param items its documents, with the id of the version with which it was done
 */
public record Job(
        long id,
        Optional<Long> paper,
        String what,
        Optional<Long> group,
        Optional<Long> person,
        Optional<LocalDate> due,
        State state,
        long giver,
        Instant givenAt,
        Map<Long, Optional<Long>> items) {
    public Job {
        items = Map.copyOf(items);
    }

    /** How far it is. */
    public enum State {
        GIVEN("not begun"),
        BEGUN("begun"),
        DONE("done"),
        DROPPED("dropped");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Whether somebody may give work over what lies at a place. */
    public static boolean mayGive(Access access, Place place) {
        return access.may(Right.CHANGE, place) || access.may(Right.DECIDE_CHANGES, place);
    }

    public boolean isOpen() {
        return state == State.GIVEN || state == State.BEGUN;
    }

    /** Whether it should be done by now; the due day itself still counts. */
    public boolean isLate(LocalDate today) {
        return isOpen() && due.filter(d -> d.isBefore(today)).isPresent();
    }

    private Optional<Refusal> ended() {
        return isOpen()
                ? Optional.empty()
                : Optional.of(Refusal.of(
                        "job.ended", "This job is " + state.words() + ".", "Ask who gave it for a new one."));
    }

    /**
     * Why somebody may not begin it; nothing when they may.
     *
     * @param members who is in the group that it was given to
     * @param has name of who has it; empty while nobody does
     */
    public Optional<Refusal> begin(long who, Set<Long> members, String has) {
        if (ended().isPresent()) return ended();
        if (person.isPresent() && person.get() != who) {
            return Optional.of(
                    Refusal.of("job.taken", has + " has this job.", "Ask them, or who gave it to pass it on."));
        }
        if (person.isEmpty() && !members.contains(who)) {
            return Optional.of(Refusal.of("job.group", "It was given to others.", "Ask who gave it."));
        }
        return Optional.empty();
    }

    /** Why somebody may not say that it is done; nothing when they may: who has it, who gave it. */
    public Optional<Refusal> finish(long who) {
        if (ended().isPresent()) return ended();
        boolean theirs = giver == who || person.filter(p -> p == who).isPresent();
        return theirs
                ? Optional.empty()
                : Optional.of(
                        Refusal.of("job.others", "It is somebody else's job.", "Begin it first, or ask who gave it."));
    }

    /** Why somebody may not drop it or pass it on; nothing when they may: who gave it. */
    public Optional<Refusal> change(long who) {
        if (ended().isPresent()) return ended();
        return giver == who
                ? Optional.empty()
                : Optional.of(Refusal.of("job.giver", "Only who gave it changes it.", "Ask them."));
    }
}
