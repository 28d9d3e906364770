package mintshelf.app.use.release;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.AskHolder;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Holder;
import mintshelf.core.route.By;
import mintshelf.core.route.Way;
import org.springframework.stereotype.Service;

/** Releases what a plan says, whole or not at all; asks those who are in its way. */
@Service
public class ReleaseTogether {
    private final ReadReleasePlan plans;
    private final Sight sight;
    private final Bundles bundles;
    private final AskHolder askHolder;
    private final Acts acts;
    private final Clock clock;

    public ReleaseTogether(
            ReadReleasePlan plans, Sight sight, Bundles bundles, AskHolder askHolder, Acts acts, Clock clock) {
        this.plans = plans;
        this.sight = sight;
        this.bundles = bundles;
        this.askHolder = askHolder;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * Releases all of a plan in one transaction.
     *
     * @param seen digest of the plan that the page showed; another one is answered with the plan as it is now
     * @return how many were released; empty where the plan is another one now
     */
    public Optional<Integer> release(Actor actor, Collection<Long> items, String key, String seen, String remark) {
        return release(actor, items, key, seen, remark, new Within() {});
    }

    /** What belongs to a release and happens in its transaction. */
    interface Within {
        /** Whether it is to be done still. */
        default boolean stands() {
            return true;
        }

        /** @param released how many were */
        default void done(int released) {}
    }

    Optional<Integer> release(
            Actor actor, Collection<Long> items, String key, String seen, String remark, Within within) {
        String said = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        ReleasePlan plan = plans.plan(actor, items);
        List<Long> going = plan.moving().stream().map(ReleasePlan.Line::item).toList();
        boolean same = plan.digest().equals(seen) && plan.opens();
        // A form that is sent twice finds its own work done: the plan is another one then.
        String done = acts.once(actor, key, () -> {
            if (!same || !within.stands()) return "";
            Map<Long, Integer> expected = new LinkedHashMap<>();
            plan.moving().forEach(l -> expected.put(l.item(), l.seen().version()));
            List<Seen> locked =
                    sight.locked(actor, expected.keySet().stream().sorted().toList());
            Map<Long, Seen> byId = new LinkedHashMap<>();
            for (Seen one : locked) {
                if (!one.all()) throw new NotThere();
                Sight.expectVersion(one, expected.get(one.spine().id()));
                byId.put(one.spine().id(), one);
            }
            List<Seen> ordered = going.stream().map(byId::get).toList();
            By by = By.handSaying(said);
            Plan<Bundles.Going> now = bundles.plan(actor, ordered, Way.released(), by);
            Refused.unlessOpen(now, "move.refused", "Nothing was released.");
            bundles.carryOut(now, Setting.of(actor, by, said, clock.instant(), ordered));
            within.done(ordered.size());
            return Integer.toString(ordered.size());
        });
        return done.isEmpty() ? Optional.empty() : Optional.of(Integer.parseInt(done));
    }

    /** Asks whoever holds documents of a plan to check them in. How many people are told. */
    public int ask(Actor actor, Collection<Long> items, Collection<Long> held, String key) {
        ReleasePlan plan = plans.plan(actor, items);
        Map<Holder, List<Seen>> byHolder = new LinkedHashMap<>();
        Map<Long, Holder> holders = new LinkedHashMap<>();
        for (ReleasePlan.Line line : plan.lines()) {
            Optional<Holder> holder = line.seen().document().holder();
            if (!held.contains(line.item()) || holder.isEmpty() || holder.get().person() == actor.person()) continue;
            Holder one = holders.computeIfAbsent(holder.get().person(), p -> holder.get());
            byHolder.computeIfAbsent(one, h -> new ArrayList<>()).add(line.seen());
        }
        String waits = plan.asked().get(0).document().number() + " waits for it to be released";
        return Integer.parseInt(acts.once(actor, key, () -> {
            byHolder.forEach((holder, all) -> askHolder.ask(actor, holder, all, waits));
            return Integer.toString(byHolder.size());
        }));
    }
}
