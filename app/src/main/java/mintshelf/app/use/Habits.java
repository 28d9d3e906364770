package mintshelf.app.use;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.TakeAlong.With;
import org.springframework.stereotype.Component;

/** What a person chose last, so that it is proposed next time. All of it can be seen and forgotten. */
@Component
public class Habits {
    private static final String ALONG = "habit.along.";
    private static final String HOLDS = "habit.holds.";
    private static final String QUIET = "habit.quiet.";

    private final PersonStore people;

    public Habits(PersonStore people) {
        this.people = people;
    }

    /** What goes along with a document of a kind; empty where the person never chose. */
    public Optional<Set<With>> along(Actor actor, String act, String kind) {
        return Optional.ofNullable(people.settings(actor.person()).get(ALONG + act + "." + kind))
                .map(With::of);
    }

    /** Whether components that can be checked out are proposed to be. */
    public boolean holds(Actor actor, String kind) {
        return people.settings(actor.person()).getOrDefault(HOLDS + kind, "").equals("yes");
    }

    /** Whether plans of an act without choices and blocks pass unseen. */
    public boolean quiet(Actor actor, String act) {
        return people.settings(actor.person()).getOrDefault(QUIET + act, "").equals("yes");
    }

    public void choseAlong(Actor actor, String act, String kind, Set<With> with) {
        people.set(actor.person(), ALONG + act + "." + kind, With.codes(with));
    }

    public void choseHolds(Actor actor, String kind, boolean holds) {
        people.set(actor.person(), HOLDS + kind, holds ? "yes" : "no");
    }

    public void choseQuiet(Actor actor, String act, boolean quiet) {
        people.set(actor.person(), QUIET + act, quiet ? "yes" : "no");
    }

    /** All that is remembered, by the setting's name. */
    public Map<String, String> all(Actor actor) {
        Map<String, String> habits = new TreeMap<>(people.settings(actor.person()));
        habits.keySet().removeIf(name -> !name.startsWith("habit."));
        return habits;
    }

    /** Forgets one of them, or all. */
    public void forget(Actor actor, Optional<String> name) {
        people.forget(actor.person(), name.orElse("habit."), name.isEmpty());
    }
}
