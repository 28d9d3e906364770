package mintshelf.app.use.job;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.HandJob;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.person.PersonStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Job;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Service;

/** Gives work over documents to a person or a group. */
@Service
public class GiveJob {
    /** Documents of one job. */
    private static final int MOST = 50;

    private final HandJob hand;
    private final Sight sight;
    private final PersonStore people;
    private final Grants grants;
    private final Settings settings;
    private final Acts acts;
    private final Clock clock;

    public GiveJob(
            HandJob hand, Sight sight, PersonStore people, Grants grants, Settings settings, Acts acts, Clock clock) {
        this.hand = hand;
        this.sight = sight;
        this.people = people;
        this.grants = grants;
        this.settings = settings;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * Gives it.
     *
     * @param paper the order that it is for
     * @param to a person, or a group
     * @return the address of the job
     */
    public String give(
            Actor actor,
            String key,
            Collection<Long> items,
            Optional<Long> paper,
            String what,
            Asked to,
            Optional<LocalDate> due) {
        String says = Texts.required("What is to be done", what, 500).orElseThrow(Refused::new);
        if (items.isEmpty() || items.size() > MOST || to.kind() == Asked.Kind.ROLE) throw new NotThere();
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        if (due.filter(d -> d.isBefore(today) || d.isAfter(today.plusYears(5))).isPresent()) {
            throw Refused.because("job.due", "That day is over, or far away.", "Choose a day that is to come.");
        }
        return acts.once(actor, key, () -> {
            List<Seen> all = List.copyOf(sight.of(actor, items).values());
            if (all.size() != items.size()
                    || all.stream().anyMatch(s -> !s.all() || s.spine().isChangePaper())) throw new NotThere();
            if (all.stream()
                    .anyMatch(s -> !Job.mayGive(actor.access(), s.document().place()))) {
                throw Refused.because(
                        "access.missing",
                        "You may not change all of these documents.",
                        "Leave out those that you may not; no job was given.");
            }
            Optional<Seen> order = paper.map(p -> sight.of(actor, p));
            if (order.filter(o -> !o.all()
                            || !o.spine().isOrder()
                            || !o.current().stage().stageClass().isPending())
                    .isPresent()) throw new NotThere();
            List<PersonStore.Person> able = able(people.asked(to), all);
            if (able.isEmpty()) {
                throw Refused.because(
                        "job.nobody",
                        to.kind() == Asked.Kind.GROUP
                                ? "Nobody of this group may change all of them."
                                : "They may not change all of them.",
                        "Choose somebody else, or give them a role on the shelf; no job was given.");
            }
            boolean group = to.kind() == Asked.Kind.GROUP;
            long job = hand.hand(
                    actor,
                    all,
                    new HandJob.Work(
                            paper,
                            says,
                            group ? Optional.of(to.id()) : Optional.empty(),
                            able.stream().map(PersonStore.Person::id).toList(),
                            group ? "a group" : able.get(0).name(),
                            due));
            return "/jobs/" + job;
        });
    }

    private List<PersonStore.Person> able(List<PersonStore.Person> asked, List<Seen> all) {
        return asked.stream()
                .filter(p -> grants.actor(p.id())
                        .filter(a -> all.stream()
                                .allMatch(s -> a.access()
                                        .may(Right.CHANGE, s.document().place())))
                        .isPresent())
                .toList();
    }
}
