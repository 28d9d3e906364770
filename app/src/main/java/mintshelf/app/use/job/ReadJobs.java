package mintshelf.app.use.job;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.job.JobStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Right;
import mintshelf.core.change.Job;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** Jobs as people see them. */
@Service
public class ReadJobs {
    /** Jobs on one page. */
    private static final int MOST = 200;

    private final JobStore jobs;
    private final Sight sight;
    private final PersonStore people;
    private final GroupStore groups;
    private final Settings settings;
    private final Clock clock;

    public ReadJobs(JobStore jobs, Sight sight, PersonStore people, GroupStore groups, Settings settings, Clock clock) {
        this.jobs = jobs;
        this.sight = sight;
        this.people = people;
        this.groups = groups;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A job.
     *
     * @param documents those of it that the person sees; {@code hidden} is how many they do not
     * @param paper the order that it is for, where they see it
     * @param who who has it, or the group that it was given to
     * @param takes whether it can be checked out and begun in one
     */
    public record View(
            Job job,
            List<Seen> documents,
            int hidden,
            Optional<Seen> paper,
            String who,
            String giver,
            boolean late,
            boolean begins,
            boolean finishes,
            boolean changes,
            boolean takes) {
        /** The ids of its documents that are seen, as addresses name them. */
        public String ids() {
            return String.join(
                    ",",
                    documents.stream().map(s -> Long.toString(s.spine().id())).toList());
        }
    }

    /** What waits for the actor. */
    public List<View> mine(Actor actor) {
        return views(actor, jobs.mine(actor.person(), MOST));
    }

    /** What others are to do for the actor. */
    public List<View> given(Actor actor) {
        return views(actor, jobs.given(actor.person(), MOST)).stream()
                .filter(v -> v.job().person().filter(p -> p == actor.person()).isEmpty())
                .toList();
    }

    /** The jobs of an order that the actor sees. */
    public List<View> of(Actor actor, long paper) {
        return sight.of(actor, List.of(paper)).values().stream().anyMatch(Seen::all)
                ? views(actor, jobs.of(paper, MOST))
                : List.of();
    }

    /** Open jobs of the actor over some documents. */
    public List<View> mineOn(Actor actor, Collection<Long> items) {
        return views(actor, jobs.mineOn(actor.person(), items));
    }

    /** One job, for who gave it, who has it or may take it, and for who sees its order. */
    public View job(Actor actor, long id) {
        Job job = jobs.job(id).orElseThrow(NotThere::new);
        boolean theirs = job.giver() == actor.person()
                || job.person().filter(p -> p == actor.person()).isPresent()
                || members(job).contains(actor.person());
        View view = views(actor, List.of(job)).get(0);
        if (!theirs && view.paper().filter(Seen::all).isEmpty()) throw new NotThere();
        return view;
    }

    private Set<Long> members(Job job) {
        return job.group().map(people::members).orElse(Set.of());
    }

    private List<View> views(Actor actor, List<Job> all) {
        Set<Long> ids = new HashSet<>();
        Set<Long> named = new HashSet<>();
        for (Job job : all) {
            ids.addAll(job.items().keySet());
            job.paper().ifPresent(ids::add);
            job.person().ifPresent(named::add);
            named.add(job.giver());
        }
        Map<Long, Seen> seen = sight.of(actor, ids);
        Map<Long, String> names = new LinkedHashMap<>();
        named.forEach(p -> people.person(p).ifPresent(x -> names.put(p, x.name())));
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        List<View> views = new ArrayList<>();
        for (Job job : all) {
            List<Seen> documents = job.items().keySet().stream()
                    .sorted()
                    .filter(seen::containsKey)
                    .map(seen::get)
                    .toList();
            String has = job.person().map(p -> names.getOrDefault(p, "")).orElse("");
            boolean begins = job.state() == Job.State.GIVEN
                    && job.begin(actor.person(), members(job), has).isEmpty();
            views.add(new View(
                    job,
                    documents,
                    job.items().size() - documents.size(),
                    job.paper().map(seen::get),
                    job.person().isPresent()
                            ? has
                            : job.group()
                                    .map(g -> "the group " + groups.name(g))
                                    .orElse(""),
                    names.getOrDefault(job.giver(), ""),
                    job.isLate(today),
                    begins,
                    job.finish(actor.person()).isEmpty(),
                    job.change(actor.person()).isEmpty(),
                    begins
                            && !documents.isEmpty()
                            && documents.stream()
                                    .allMatch(s -> s.all()
                                            && actor.access()
                                                    .may(
                                                            Right.CHANGE,
                                                            s.document().place())
                                            && HoldRules.checkOut(s.document(), actor.access())
                                                    .isEmpty())));
        }
        return views;
    }

    /** The people to whom a job may be passed on, by number. */
    public Map<String, String> people() {
        return people.names();
    }

    /**
     * What giving a job over documents starts from.
     *
     * @param people and groups to whom it may be given, by number
     */
    public record Giving(
            List<Seen> documents, Optional<Seen> paper, Map<String, String> people, Map<String, String> groups) {}

    public Giving giving(Actor actor, Collection<Long> items, Optional<Long> paper) {
        List<Seen> documents = sight.of(actor, items).values().stream()
                .filter(s -> s.all()
                        && !s.spine().isChangePaper()
                        && Job.mayGive(actor.access(), s.document().place()))
                .toList();
        if (documents.isEmpty()) throw new NotThere();
        Map<String, String> named = new LinkedHashMap<>();
        groups.groups().forEach(g -> named.put(Long.toString(g.id()), g.name()));
        return new Giving(
                documents,
                paper.map(p -> sight.of(actor, p))
                        .filter(s -> s.all() && s.spine().isOrder()),
                people.names(),
                named);
    }
}
