package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.Optional;

/**
 * What is known of the mass, or the cost, of one unit of a part.
 *
 * @param own what a fact of it says
 * @param lacks why nothing is known, where it is something else than that nobody said it
 * @param instead what somebody says in the place of the sum of its lines
 */
public record Worth(Optional<BigDecimal> own, String lacks, Optional<Instead> instead) {
    public static final Worth UNKNOWN = of(Optional.empty());

    /** A value that was weighed, or agreed upon, with the reason why it counts and not the sum. */
    public record Instead(BigDecimal value, String why) {}

    public static Worth of(Optional<BigDecimal> own) {
        return new Worth(own, "", Optional.empty());
    }

    /** Nothing is known, for a reason. */
    public static Worth lacking(String why) {
        return new Worth(Optional.empty(), why, Optional.empty());
    }

    public Worth instead(Optional<Instead> other) {
        return new Worth(own, lacks, other);
    }
}
