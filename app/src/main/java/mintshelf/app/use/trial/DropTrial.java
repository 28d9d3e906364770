package mintshelf.app.use.trial;

import java.util.Optional;
import mintshelf.app.effect.EndTrial;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.trial.TrialRules;
import org.springframework.stereotype.Service;

/** Drops a trial. What was made on it stays readable. */
@Service
public class DropTrial {
    private final Trials trials;
    private final EndTrial end;
    private final Acts acts;

    public DropTrial(Trials trials, EndTrial end, Acts acts) {
        this.trials = trials;
        this.end = end;
        this.acts = acts;
    }

    /** What is in the way of dropping it. */
    public static Optional<Refusal> refusal(Actor actor, Whole whole) {
        if (!whole.trial().isOpen()) return Optional.of(TrialHolds.ended(whole));
        return TrialRules.drop(
                whole.trial().startedBy(),
                whole.trial().startedByName(),
                whole.isWhole()
                        ? whole.lines().stream()
                                .map(t -> t.original().document().place())
                                .toList()
                        : java.util.List.of(),
                actor.access());
    }

    /** Drops it; check-outs on it end, and who has them is told. */
    public String drop(Actor actor, long trial, String why, String key) {
        String words = Texts.optional("The reason", why, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Whole whole = trials.locked(actor, trial);
            refusal(actor, whole).ifPresent(r -> {
                throw new Refused(r);
            });
            end.drop(actor, whole, words);
            return "/trials/" + trial + "?dropped";
        });
    }
}
