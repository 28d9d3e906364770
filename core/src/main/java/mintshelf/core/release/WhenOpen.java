package mintshelf.core.release;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * A release that somebody asked for before it was open: it is made when nothing is in its way any more, of what they saw. What was in
 * the way then may become another version, for that is how it comes out of the way; what was ready may not, and nothing may join.
 *
 * @param seen the documents that were to move, each with the version that was ready; without one where something was in its way
 */
public record WhenOpen(Map<Long, Optional<Integer>> seen) {
    public WhenOpen {
        seen = Map.copyOf(seen);
    }

    /** A document of the plan as it is now. */
    public record Now(long item, String number, int version) {}

    /** What is to be done. */
    public sealed interface Verdict {}

    /** Something is in the way still. */
    public record Waits() implements Verdict {}

    /** It is open, and what was asked for. */
    public record Opens() implements Verdict {}

    /** All of it was released otherwise. */
    public record Nothing() implements Verdict {}

    /** It is not what was asked for any more. */
    public record Changed(String says) implements Verdict {}

    /**
     * Judges a plan.
     *
     * @param moving what would move by the plan as it is now
     * @param opens whether nothing is in its way
     */
    public Verdict judge(Collection<Now> moving, boolean opens) {
        if (moving.isEmpty()) return new Nothing();
        Set<String> joined = new TreeSet<>();
        Set<String> changed = new TreeSet<>();
        for (Now now : moving) {
            Optional<Integer> version = seen.get(now.item());
            if (version == null) joined.add(now.number());
            else if (version.filter(v -> v != now.version()).isPresent()) changed.add(now.number());
        }
        if (!joined.isEmpty()) return new Changed(named(joined) + " would go along now and did not then");
        if (!changed.isEmpty()) return new Changed(named(changed) + " was ready then and has another version now");
        return opens ? new Opens() : new Waits();
    }

    private static String named(Set<String> numbers) {
        List<String> all = List.copyOf(numbers);
        return all.size() == 1 ? all.get(0) : all.get(0) + " and " + (all.size() - 1) + " more";
    }
}
