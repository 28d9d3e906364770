package mintshelf.app.use.release;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Bundles;
import mintshelf.app.effect.Telling;
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
    private final Telling telling;
    private final Acts acts;
    private final Clock clock;

    public ReleaseTogether(
            ReadReleasePlan plans, Sight sight, Bundles bundles, Telling telling, Acts acts, Clock clock) {
        this.plans = plans;
        this.sight = sight;
        this.bundles = bundles;
        this.telling = telling;
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
        String said = Texts.optional("The remark", remark, 500).orElseThrow(Refused::new);
        ReleasePlan plan = plans.plan(actor, items);
        List<Long> going = plan.moving().stream().map(ReleasePlan.Line::item).toList();
        boolean same = plan.digest().equals(seen) && plan.opens();
        // A form that is sent twice finds its own work done: the plan is another one then.
        String done = acts.once(actor, key, () -> {
            if (!same) return "";
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
            return Integer.toString(ordered.size());
        });
        return done.isEmpty() ? Optional.empty() : Optional.of(Integer.parseInt(done));
    }

    /** Asks whoever holds documents of a plan to check them in. How many people are told. */
    public int ask(Actor actor, Collection<Long> items, Collection<Long> held, String key) {
        ReleasePlan plan = plans.plan(actor, items);
        Map<Long, List<Seen>> byHolder = new LinkedHashMap<>();
        for (ReleasePlan.Line line : plan.lines()) {
            if (!held.contains(line.item())) continue;
            line.seen()
                    .document()
                    .holder()
                    .map(Holder::person)
                    .ifPresent(p ->
                            byHolder.computeIfAbsent(p, x -> new ArrayList<>()).add(line.seen()));
        }
        byHolder.remove(actor.person());
        String told = acts.once(actor, key, () -> {
            byHolder.forEach((person, all) -> telling.tell(
                    actor,
                    Set.of(person),
                    "hold.wanted",
                    Optional.empty(),
                    all.get(0).spine().id(),
                    actor.name() + " asks you to check in " + named(all) + ": "
                            + plan.asked().get(0).document().number() + " waits for it to be released",
                    "/check-in?items="
                            + String.join(
                                    ",",
                                    all.stream()
                                            .map(s -> Long.toString(s.spine().id()))
                                            .limit(20)
                                            .toList())));
            return Integer.toString(byHolder.size());
        });
        return Integer.parseInt(told);
    }

    private static String named(List<Seen> all) {
        Set<String> numbers = new LinkedHashSet<>();
        all.forEach(s -> numbers.add(s.document().number() + " (" + s.spine().kindName() + ")"));
        List<String> first = numbers.stream().limit(3).toList();
        int more = numbers.size() - first.size();
        return String.join(", ", first) + (more > 0 ? " and " + more + " more" : "");
    }
}
