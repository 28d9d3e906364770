package mintshelf.app.store.document;

import java.time.Instant;
import java.util.Optional;
import mintshelf.core.document.Revision;

/**
 * A revision as the strip shows it.
 *
 * @param details the longer reason
 * @param releasedVersion number of the version that it was released with
 */
public record RevisionRow(
        Revision revision,
        String details,
        String startedBy,
        long startedById,
        Instant stageSince,
        Optional<Instant> releasedAt,
        Optional<Integer> releasedVersion,
        boolean dropped) {}
