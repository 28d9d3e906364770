package mintshelf.core.hold;

import mintshelf.core.base.Refusal;

/** What becomes of a file that comes back. A refused check-in never costs work. */
public sealed interface Returned {
    /** It becomes the version after {@code base}. */
    record NewVersion(int base) implements Returned {}

    /** The same bytes as the latest: no version, the check-out ends. */
    record Unchanged() implements Returned {}

    /** The same bytes, saved with components that have moved on: a version that captures those. */
    record TakesUp(int components) implements Returned {}

    /** The same drawing or model, saved once more: only times of saving differ. No version, the check-out ends. */
    record OnlySaved() implements Returned {}

    /** Kept beside the document, with the refusal on it. */
    record KeptAsStray(Refusal refusal) implements Returned {}
}
