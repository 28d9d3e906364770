package mintshelf.core.document;

import java.time.Instant;
import java.util.Optional;

/**
 * A revision of a document. Its stage is its own: A is released while B is in preparation.
 *
 * @param label empty until it is reserved
 * @param released whether it is the one in force
 */
public record Revision(
        long id,
        int ordinal,
        Optional<String> label,
        Stage stage,
        boolean pending,
        boolean released,
        Instant startedAt,
        String reason) {
    /** The label, or a dash while none is reserved. */
    public String shown() {
        return label.orElse("–");
    }
}
