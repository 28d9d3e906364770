package mintshelf.app.sight;

import mintshelf.app.ground.Actor;
import mintshelf.app.store.job.JobStore;
import org.springframework.stereotype.Component;

/** How much waits for somebody in the in-tray: signatures, jobs. */
@Component
public class Waiting {
    private final RoundSight rounds;
    private final JobStore jobs;

    public Waiting(RoundSight rounds, JobStore jobs) {
        this.rounds = rounds;
        this.jobs = jobs;
    }

    public int count(Actor actor) {
        return rounds.waitingFor(actor).size() + jobs.count(actor.person());
    }
}
