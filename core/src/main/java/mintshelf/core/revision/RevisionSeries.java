package mintshelf.core.revision;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;

/**
 * How revision labels follow each other. A series numbers its labels from 0 without end (or to its last one): {@link #label} and
 * {@link #position} are inverse to each other, and all else follows from them.
 */
public interface RevisionSeries {
    /** The label at a position from 0; empty behind the last one. */
    Optional<String> label(long position);

    /** The position of a label; empty when the series does not know it. */
    Optional<Long> position(String label);

    /** In words, for the house rules: "A, B, C … without I, O, Q, S, X, Z". */
    String says();

    default String first() {
        return label(0).orElseThrow();
    }

    /** The label after {@code label}, or why there is none. */
    default Outcome<String> next(String label) {
        Optional<Long> at = position(label);
        if (at.isEmpty()) {
            return Outcome.refused(
                    "revision.unknown",
                    "“" + label + "” is not a label of the series " + says() + ".",
                    "A data manager can name the label that follows it.");
        }
        return label(at.get() + 1)
                .map(Outcome::granted)
                .orElseGet(() -> Outcome.refused(
                        "revision.end",
                        "“" + label + "” is the last label of the series " + says() + ".",
                        "A data manager can lengthen the series or choose another one for the kind."));
    }

    /**
     * The steps that are usual after a label, the next one first; empty behind the last one. A series with two kinds of step has both.
     */
    default List<String> steps(String label) {
        return next(label) instanceof Outcome.Granted<String> next ? List.of(next.value()) : List.of();
    }

    /** Whether an imported label belongs to the series. */
    default boolean accepts(String label) {
        return position(label).isPresent();
    }

    /** Negative, zero or positive as {@code a} comes before, is, or comes after {@code b}; both must be accepted. */
    default int compare(String a, String b) {
        return Long.compare(position(a).orElseThrow(), position(b).orElseThrow());
    }
}
