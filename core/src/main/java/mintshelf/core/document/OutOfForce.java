package mintshelf.core.document;

import java.util.Optional;
import mintshelf.core.revision.StageClass;

/** What a sheet says across its margin that nobody is to work from any more. */
public final class OutOfForce {
    private OutOfForce() {}

    /**
     * "Replaced by C", "Withdrawn; TG40-3031 in its place"; nothing for what is in force, and for what never was.
     *
     * @param of the revision that the sheet is of
     * @param now its document; of work in preparation nothing is said
     * @param successor number of the document that took its place when it was withdrawn
     */
    public static Optional<String> says(Revision of, Document now, Optional<String> successor) {
        return switch (of.stage().stageClass()) {
            case SUPERSEDED ->
                Optional.of(now.released()
                        .map(in -> "Replaced by " + in.shown())
                        .orElseGet(() ->
                                now.lastEnded().stream().anyMatch(r -> r.stage().stageClass() == StageClass.WITHDRAWN)
                                        ? withdrawn(successor)
                                        : "Replaced"));
            case WITHDRAWN -> Optional.of(withdrawn(successor));
            case PREPARING, DECIDING, RELEASED, CLOSED -> Optional.empty();
        };
    }

    private static String withdrawn(Optional<String> successor) {
        return "Withdrawn" + successor.map(s -> "; " + s + " in its place").orElse("");
    }
}
