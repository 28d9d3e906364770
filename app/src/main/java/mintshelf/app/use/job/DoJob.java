package mintshelf.app.use.job;

import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Job;
import org.springframework.stereotype.Service;

/** Begins a job, says that it is done, drops it, passes it on. */
@Service
public class DoJob {
    private final JobStore jobs;
    private final SpineStore spines;
    private final PersonStore people;
    private final Grants grants;
    private final Telling telling;
    private final Recorder recorder;
    private final Acts acts;
    private final Clock clock;

    public DoJob(
            JobStore jobs,
            SpineStore spines,
            PersonStore people,
            Grants grants,
            Telling telling,
            Recorder recorder,
            Acts acts,
            Clock clock) {
        this.jobs = jobs;
        this.spines = spines;
        this.people = people;
        this.grants = grants;
        this.telling = telling;
        this.recorder = recorder;
        this.acts = acts;
        this.clock = clock;
    }

    private Job locked(long id, Function<Job, Optional<Refusal>> rule) {
        jobs.lock(id);
        Job job = jobs.job(id).orElseThrow(NotThere::new);
        rule.apply(job).ifPresent(r -> {
            throw new Refused(r);
        });
        return job;
    }

    private Set<Long> members(Job job) {
        return job.group().map(people::members).orElse(Set.of());
    }

    /** Whoever begins a group's job first has it; the others of the group are told. */
    public String begin(Actor actor, long id, String key) {
        return acts.once(actor, key, () -> {
            Job job = locked(id, j -> mine(actor, j));
            if (job.state() == Job.State.BEGUN) return "/jobs/" + id;
            jobs.begin(id, actor.person(), clock.instant());
            if (job.person().isEmpty()) {
                tell(actor, job, members(job), "job.taken", actor.name() + " has taken the job: " + job.what());
            }
            note(actor, job, "job.begun", "began a job");
            return "/jobs/" + id;
        });
    }

    private Optional<Refusal> mine(Actor actor, Job job) {
        String has = job.person()
                .flatMap(people::person)
                .map(PersonStore.Person::name)
                .orElse("");
        return job.begin(actor.person(), members(job), has);
    }

    /** It is done, with the versions that its documents have now; who gave it learns of it. */
    public String done(Actor actor, long id, String key) {
        return acts.once(actor, key, () -> {
            Job job = locked(id, j -> j.finish(actor.person()));
            Map<Long, Long> versions = new LinkedHashMap<>();
            spines.spines(job.items().keySet())
                    .forEach((item, spine) ->
                            versions.put(item, spine.document().head().version()));
            jobs.done(id, actor.person(), versions, clock.instant());
            Set<Long> receivers = new LinkedHashSet<>(List.of(job.giver()));
            job.person().ifPresent(receivers::add);
            tell(actor, job, receivers, "job.done", actor.name() + " says that it is done: " + job.what());
            note(actor, job, "job.done", "did a job");
            return "/jobs/" + id;
        });
    }

    public String drop(Actor actor, long id, String key, String reason) {
        String why = Texts.required("The reason", reason, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Job job = locked(id, j -> j.change(actor.person()));
            jobs.drop(id, actor.person(), clock.instant());
            tell(actor, job, has(job), "job.dropped", actor.name() + " drops the job “" + job.what() + "”: " + why);
            note(actor, job, "job.dropped", "dropped a job");
            return "/jobs/" + id;
        });
    }

    /** Somebody else has it from now on. */
    public String pass(Actor actor, long id, String key, long person) {
        return acts.once(actor, key, () -> {
            Job job = locked(id, j -> j.change(actor.person()));
            Actor next = grants.actor(person).orElseThrow(NotThere::new);
            boolean able = spines.spines(job.items().keySet()).values().stream()
                    .allMatch(s -> next.access().may(Right.CHANGE, s.document().place()));
            if (!able) {
                throw Refused.because(
                        "job.nobody",
                        next.name() + " may not change all of its documents.",
                        "Choose somebody else; the job stays where it is.");
            }
            jobs.pass(id, person);
            tell(
                    actor,
                    job,
                    has(job),
                    "job.passed",
                    actor.name() + " passed it on to " + next.name() + ": " + job.what());
            tell(actor, job, Set.of(person), "job.given", actor.name() + " gives you a job: " + job.what());
            note(actor, job, "job.passed", "passed a job on to " + next.name());
            return "/jobs/" + id;
        });
    }

    private Set<Long> has(Job job) {
        return job.person().map(Set::of).orElseGet(() -> members(job));
    }

    private void tell(Actor actor, Job job, Set<Long> receivers, String code, String says) {
        telling.tell(
                actor,
                receivers,
                code,
                Optional.empty(),
                job.items().keySet().stream().sorted().findFirst().orElseThrow(),
                Texts.shorten(says, 400),
                "/jobs/" + job.id());
    }

    private void note(Actor actor, Job job, String act, String says) {
        for (long item : job.items().keySet()) recorder.note(actor, item, act, says, job.what());
    }
}
