package mintshelf.app.effect.run;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.run.Run;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;

/** An act over a set of documents, which says what it would do before it does it. */
public interface SetAct {
    Run.What what();

    /**
     * What it would do, in the order in which it goes; nothing is changed.
     *
     * @param items what the actor asks for; those they may not know of are not in the plan
     */
    Plan<PlanLine> plan(Actor actor, Collection<Long> items, Wish wish);

    /**
     * Does some rows of the plan in the caller's transaction: locks, asks again, acts; all of them, or it refuses.
     *
     * @param rows in the plan's order
     * @return what became of each, in the order of the rows
     */
    List<Run.Row> carryOut(Actor actor, List<Run.Due> rows, Wish wish);

    /** Whether all that goes is one portion: all of it or nothing, however long it takes. */
    default boolean isWhole() {
        return false;
    }

    /** In words, what it does with the rows that go: "Move 3 documents to Released". */
    String says(List<PlanLine> going, Wish wish);

    /** What is told of a document of which the actor sees released versions only: always the same, whatever is prepared. */
    static Refusal notShown(Seen seen) {
        return Refusal.of(
                "access.missing",
                "You see released versions of " + seen.document().number() + " only.",
                "A data manager can change that.");
    }

    /**
     * What a row of a plan is about.
     *
     * @param expected how the document was seen; {@link #carryOut} refuses when it has moved on
     * @param from the stage that it leaves, and {@code to} where it goes; none where it does not move. Of what is made from it, {@code to} is its number
     * @param label of the revision that is fixed or in force afterwards; none where there is none
     * @param says what happens besides, in short sentences
     */
    record PlanLine(
            Seen seen,
            String expected,
            Optional<String> from,
            Optional<String> to,
            Optional<String> label,
            List<String> says) {
        public PlanLine {
            says = List.copyOf(says);
        }

        /** Of a document that stays where it is on its route. */
        public static PlanLine of(Seen seen, String... says) {
            return new PlanLine(
                    seen,
                    Integer.toString(seen.version()),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    List.of(says));
        }
    }
}
