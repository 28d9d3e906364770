package mintshelf.app.use.job;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.change.Job;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Jobs that should be done by now go back to who gave them, once: on Today and by mail. */
@Service
public class LateJobs {
    private static final int PORTION = 100;

    private final JobStore jobs;
    private final PersonStore people;
    private final Telling telling;
    private final Settings settings;
    private final UnitOfWork unit;
    private final Clock clock;

    public LateJobs(
            JobStore jobs, PersonStore people, Telling telling, Settings settings, UnitOfWork unit, Clock clock) {
        this.jobs = jobs;
        this.people = people;
        this.telling = telling;
        this.settings = settings;
        this.unit = unit;
        this.clock = clock;
    }

    /** How many were told of. */
    @Scheduled(initialDelayString = "PT4M", fixedDelayString = "PT20M")
    public int tell() {
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        int told = 0;
        for (Job job : jobs.late(today, PORTION)) if (unit.run(() -> tell(job.id(), today))) told++;
        return told;
    }

    private boolean tell(long id, LocalDate today) {
        jobs.lock(id);
        // Another node may have told, somebody may have done it meanwhile.
        Optional<Job> late =
                jobs.late(today, PORTION).stream().filter(j -> j.id() == id).findFirst();
        if (late.isEmpty()) return false;
        Job job = late.get();
        jobs.lateTold(id);
        String who = job.person()
                .flatMap(people::person)
                .map(PersonStore.Person::name)
                .orElse("nobody of the group");
        Set<Long> receivers = new LinkedHashSet<>();
        receivers.add(job.giver());
        job.person().ifPresent(receivers::add);
        telling.byItself(
                job.giver(),
                receivers,
                "job.late",
                job.items().keySet().stream().sorted().findFirst().orElseThrow(),
                "A job is late, " + who + " has it: " + job.what(),
                "/jobs/" + id);
        return true;
    }
}
