package mintshelf.core.hold;

import mintshelf.core.base.Refusal;

/** What becomes of a file that comes back. A refused check-in never costs work. */
public sealed interface Returned {
    /** It becomes the version after {@code base}. */
    record NewVersion(int base) implements Returned {}

    /** The same bytes as the latest: no version, the check-out ends. */
    record Unchanged() implements Returned {}

    /** Kept beside the document, with the refusal on it. */
    record KeptAsStray(Refusal refusal) implements Returned {}
}
