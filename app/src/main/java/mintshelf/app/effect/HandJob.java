package mintshelf.app.effect;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.job.JobStore;
import mintshelf.core.base.Days;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Component;

/** Hands work over documents to somebody, within the caller's transaction: kept, told, noted in the record of each. */
@Component
public class HandJob {
    private final JobStore jobs;
    private final Telling telling;
    private final Recorder recorder;
    private final Clock clock;

    public HandJob(JobStore jobs, Telling telling, Recorder recorder, Clock clock) {
        this.jobs = jobs;
        this.telling = telling;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * What is to be done, and by whom.
     *
     * @param paper the order that it is for
     * @param group that it is given to; none for one person
     * @param people who are told: the person, or those of the group who can do it
     * @param whom as the record names them
     */
    public record Work(
            Optional<Long> paper,
            String says,
            Optional<Long> group,
            Collection<Long> people,
            String whom,
            Optional<LocalDate> due) {}

    /** Hands it over; gives the job's id. */
    public long hand(Actor actor, List<Seen> all, Work work) {
        boolean group = work.group().isPresent();
        long job = jobs.add(
                work.paper(),
                work.says(),
                work.group(),
                group ? Optional.empty() : work.people().stream().findFirst(),
                work.due(),
                all.stream().map(s -> s.spine().id()).toList(),
                actor.person(),
                clock.instant());
        String over = all.get(0).document().number() + (all.size() == 1 ? "" : " and " + (all.size() - 1) + " more");
        telling.tell(
                actor,
                work.people(),
                "job.given",
                Optional.empty(),
                all.get(0).spine().id(),
                actor.name() + " gives you a job" + (group ? ", you or another one of the group" : "") + ": " + over
                        + ", " + Texts.shorten(work.says(), 200)
                        + work.due().map(d -> ", by " + Days.words(d)).orElse(""),
                "/jobs/" + job);
        for (Seen seen : all)
            recorder.note(actor, seen.spine().id(), "job.given", "gave " + work.whom() + " a job", work.says());
        return job;
    }
}
