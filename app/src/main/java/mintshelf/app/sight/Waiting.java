package mintshelf.app.sight;

import mintshelf.app.ground.Actor;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.trial.OpinionStore;
import org.springframework.stereotype.Component;

/** How much waits for somebody in the in-tray: signatures, opinions on trials, jobs. */
@Component
public class Waiting {
    private final RoundSight rounds;
    private final JobStore jobs;
    private final OpinionStore opinions;

    public Waiting(RoundSight rounds, JobStore jobs, OpinionStore opinions) {
        this.opinions = opinions;
        this.rounds = rounds;
        this.jobs = jobs;
    }

    public int count(Actor actor) {
        return rounds.waitingFor(actor).size() + jobs.count(actor.person()) + opinions.count(actor.person());
    }
}
