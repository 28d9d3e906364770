package mintshelf.app.effect;

import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.trial.OpinionStore;
import mintshelf.app.store.trial.OpinionStore.Ending;
import mintshelf.app.store.trial.OpinionStore.Round;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.store.trial.TrialStore.State;
import mintshelf.app.store.trial.TrialStore.Trial;
import org.springframework.stereotype.Component;

/** Ends trials, and the rounds of trials; within the transaction of the act, under the locks of the documents. */
@Component
public class EndTrial {
    private final TrialStore trials;
    private final OpinionStore opinions;
    private final HoldStore holds;
    private final Telling telling;
    private final Recorder recorder;
    private final Clock clock;

    public EndTrial(
            TrialStore trials,
            OpinionStore opinions,
            HoldStore holds,
            Telling telling,
            Recorder recorder,
            Clock clock) {
        this.trials = trials;
        this.opinions = opinions;
        this.holds = holds;
        this.telling = telling;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Drops a trial: its versions stay, its check-outs end, everybody who has to do with it is told. */
    public void drop(Actor actor, Whole whole, String why) {
        for (Tried tried : whole.lines()) {
            tried.line()
                    .holder()
                    .ifPresent(
                            h -> holds.end(h.hold(), HoldStore.Ending.DROPPED, actor.person(), why, clock.instant()));
            recorder.note(actor, tried.item(), "trial.dropped", "dropped trial " + named(whole.trial()), why);
        }
        end(actor, whole, State.DROPPED, why, "dropped trial " + whole.of() + (why.isEmpty() ? "" : ": " + why));
    }

    /** A trial whose result was made a version of its documents ends. */
    public void adopted(Actor actor, Whole whole, String why) {
        end(actor, whole, State.ADOPTED, why, "adopted trial " + whole.of());
    }

    private void end(Actor actor, Whole whole, State how, String why, String says) {
        Trial trial = whole.trial();
        Set<Long> told = new LinkedHashSet<>();
        told.add(trial.startedBy());
        whole.lines().forEach(t -> t.line().holder().ifPresent(h -> told.add(h.person())));
        opinions.open(trial.id()).ifPresent(r -> {
            told.addAll(r.waitingFor());
            told.add(r.by());
            opinions.end(r.id(), Ending.TRIAL_ENDED, clock.instant());
        });
        trials.end(trial.id(), how, actor.person(), why, clock.instant());
        telling.tell(
                actor,
                told,
                "trial.ended",
                Optional.empty(),
                whole.first().item(),
                actor.name() + " " + says + ".",
                "/trials/" + trial.id());
    }

    /** A version came on one of its lines: who has not said anything yet need not any more. */
    void movedOn(Actor actor, long line, long item, String says) {
        Instant now = clock.instant();
        Optional<Round> open = trials.ofLine(line).flatMap(opinions::open);
        open.ifPresent(r -> {
            opinions.end(r.id(), Ending.MOVED_ON, now);
            Set<Long> told = new LinkedHashSet<>(r.waitingFor());
            told.add(r.by());
            telling.tell(
                    actor,
                    told,
                    "trial.moved_on",
                    Optional.empty(),
                    item,
                    actor.name() + " checked in " + says
                            + "; what was asked of the version before needs no answer any more.",
                    "/trials/" + r.trial());
        });
    }

    /** "t1, Lighter float". */
    public static String named(Trial trial) {
        return trial.line() + ", " + trial.title();
    }
}
