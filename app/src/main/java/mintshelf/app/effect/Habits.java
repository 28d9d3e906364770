package mintshelf.app.effect;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.person.SettingStore;
import org.springframework.stereotype.Component;

/** What a person chose last, so that it is proposed next time. All of it can be seen and forgotten. */
@Component
public class Habits {
    private static final String ALONG = "habit.along.";
    private static final String HOLDS = "habit.holds.";
    private static final String QUIET = "habit.quiet.";
    private static final String STRAIGHT = "habit.straight.send";
    private static final String TIMES = "taken.";
    private static final int ENOUGH = 3;

    private final SettingStore chosen;

    public Habits(SettingStore chosen) {
        this.chosen = chosen;
    }

    /** What goes along with a document of a kind; empty where the person never chose. */
    public Optional<Set<With>> along(Actor actor, String act, String kind) {
        return Optional.ofNullable(chosen.settings(actor.person()).get(ALONG + act + "." + kind))
                .map(With::of);
    }

    /** Whether components that can be checked out are proposed to be. */
    public boolean holds(Actor actor, String kind) {
        return chosen.settings(actor.person()).getOrDefault(HOLDS + kind, "").equals("yes");
    }

    /** Whether plans of an act without choices and blocks pass unseen. */
    public boolean quiet(Actor actor, String act) {
        return chosen.settings(actor.person()).getOrDefault(QUIET + act, "").equals("yes");
    }

    /** Whether what is checked in and then sent to review goes without a look at who is asked. */
    public boolean sendsStraight(Actor actor) {
        return chosen.settings(actor.person()).getOrDefault(STRAIGHT, "").equals("yes");
    }

    public void choseStraight(Actor actor, boolean straight) {
        chosen.set(actor.person(), STRAIGHT, straight ? "yes" : "no");
    }

    /** Notes that a plan was carried out as it was proposed; after the third one such plans may pass unseen. */
    public void tookAsProposed(Actor actor, String act) {
        int times = taken(actor, act);
        if (times < ENOUGH) chosen.set(actor.person(), TIMES + act, Integer.toString(times + 1));
    }

    /** Whether it is time to offer that plans of an act pass unseen; asked once it was answered, it is not again. */
    public boolean couldBeQuiet(Actor actor, String act) {
        return taken(actor, act) >= ENOUGH && !chosen.settings(actor.person()).containsKey(QUIET + act);
    }

    private int taken(Actor actor, String act) {
        String times = chosen.settings(actor.person()).getOrDefault(TIMES + act, "0");
        return times.matches("\\d") ? Integer.parseInt(times) : 0;
    }

    public void choseAlong(Actor actor, String act, String kind, Set<With> with) {
        chosen.set(actor.person(), ALONG + act + "." + kind, With.codes(with));
    }

    public void choseHolds(Actor actor, String kind, boolean holds) {
        chosen.set(actor.person(), HOLDS + kind, holds ? "yes" : "no");
    }

    public void choseQuiet(Actor actor, String act, boolean quiet) {
        chosen.set(actor.person(), QUIET + act, quiet ? "yes" : "no");
    }

    /** All that is remembered, by the setting's name. */
    public Map<String, String> all(Actor actor) {
        Map<String, String> habits = new TreeMap<>(chosen.settings(actor.person()));
        habits.keySet().removeIf(name -> !name.startsWith("habit."));
        return habits;
    }

    /** Forgets one of them, or all. */
    public void forget(Actor actor, Optional<String> name) {
        chosen.forget(actor.person(), name.orElse("habit."), name.isEmpty());
    }
}
