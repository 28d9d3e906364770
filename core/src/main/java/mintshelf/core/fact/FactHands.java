package mintshelf.core.fact;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Place;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.revision.StageClass;

/**
 * Who may type a fact, by where its revision stands: what the right must be, or nobody. What was in force once and is not any more
 * changes no more.
 *
 * @param reason whether what is in force changes with a reason only; editions that were kept before it could be said do not ask for one
 */
public record FactHands(Optional<Right> preparing, Optional<Right> deciding, Optional<Right> released, Boolean reason) {
    /** While it is on its way whoever changes documents, afterwards nobody. */
    public static final FactHands USUAL =
            new FactHands(Optional.of(Right.CHANGE), Optional.of(Right.CHANGE), Optional.empty());

    public FactHands {
        reason = Boolean.TRUE.equals(reason);
    }

    public FactHands(Optional<Right> preparing, Optional<Right> deciding, Optional<Right> released) {
        this(preparing, deciding, released, false);
    }

    /** Why a change of what stands there is refused that says no reason; nothing where none is asked for, or one is given. */
    public Optional<Refusal> unsaid(String label, StageClass stage, String why) {
        if (!reason || stage != StageClass.RELEASED || !why.isBlank()) return Optional.empty();
        return Optional.of(Refusal.of(
                "fact.reason",
                label + " changes with a reason once released.",
                "Say why it changes; nothing was changed."));
    }

    /** The right that is needed in a stage of this class; none where nobody may. */
    public Optional<Right> in(StageClass stage) {
        return switch (stage) {
            case PREPARING -> preparing;
            case DECIDING -> deciding;
            case RELEASED -> released;
            case SUPERSEDED, WITHDRAWN, CLOSED -> Optional.empty();
        };
    }

    /** Why somebody may not type a fact of this name there; nothing when they may. */
    public Optional<Refusal> ask(String label, StageClass stage, Access access, Place place) {
        Optional<Right> needed = in(stage);
        if (needed.isPresent() && access.may(needed.get(), place)) return Optional.empty();
        return Optional.of(
                needed.isEmpty()
                        ? Refusal.of(
                                "fact.closed",
                                label + " does not change " + where(stage) + ".",
                                stage.isPending() ? "Take it back to work first." : "Start the next revision first.")
                        : Refusal.of(
                                "fact.hands",
                                label + " is changed " + where(stage) + " by those who may "
                                        + needed.get().words() + ".",
                                "Ask one of them."));
    }

    private static String where(StageClass stage) {
        return switch (stage) {
            case PREPARING -> "in preparation";
            case DECIDING -> "in review";
            case RELEASED -> "once released";
            case SUPERSEDED, WITHDRAWN, CLOSED -> "any more";
        };
    }

    /** In words: "in preparation and in review by those who may change documents; once released by nobody". */
    public String says() {
        List<String> parts = new ArrayList<>();
        if (preparing.equals(deciding)) {
            parts.add("in preparation and in review by " + who(preparing));
        } else {
            parts.add("in preparation by " + who(preparing));
            parts.add("in review by " + who(deciding));
        }
        parts.add("once released by " + who(released) + (reason && released.isPresent() ? ", with a reason" : ""));
        return String.join("; ", parts);
    }

    private static String who(Optional<Right> right) {
        return right.map(r -> "those who may " + r.words()).orElse("nobody");
    }
}
