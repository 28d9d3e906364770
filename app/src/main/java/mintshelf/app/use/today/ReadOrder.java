package mintshelf.app.use.today;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.house.RuleStore;
import mintshelf.core.access.Right;
import mintshelf.core.signoff.WorkingDays;
import org.springframework.stereotype.Service;

/** What is out of order where somebody keeps order: what is held for longer than a week, what came back without a hold. */
@Service
public class ReadOrder {
    private static final Duration LONG = Duration.ofDays(7);
    private static final int MOST = 200;

    private final HoldStore holds;
    private final StrayStore strays;
    private final RuleStore rules;
    private final Sight sight;
    private final Settings settings;
    private final Clock clock;

    ReadOrder(HoldStore holds, StrayStore strays, RuleStore rules, Sight sight, Settings settings, Clock clock) {
        this.holds = holds;
        this.strays = strays;
        this.rules = rules;
        this.sight = sight;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * Something that is out of order.
     *
     * @param who holds it, or brought it
     * @param days working days since
     */
    public record Line(Seen seen, String who, Instant since, int days, long stray) {}

    /** What is out of order, the oldest first. */
    public record Order(List<Line> held, List<Line> strays) {}

    /** Whether somebody keeps order anywhere. */
    public static boolean keeps(Actor actor) {
        return actor.access().maySomewhere(Right.KEEP_SHELF);
    }

    public Order order(Actor actor) {
        if (!keeps(actor)) throw new NotThere();
        Instant now = clock.instant();
        List<HoldStore.Held> held = holds.since(now.minus(LONG), MOST);
        List<StrayStore.Left> left = strays.left(MOST);
        Set<Long> ids = new HashSet<>();
        held.forEach(h -> ids.add(h.item()));
        left.forEach(s -> ids.add(s.item()));
        Map<Long, Seen> seen = sight.of(actor, ids);
        WorkingDays days = rules.days();
        List<Line> waits = new ArrayList<>();
        for (HoldStore.Held h : held) {
            if (keeps(actor, seen.get(h.item()))) {
                waits.add(new Line(seen.get(h.item()), h.name(), h.at(), worked(days, h.at(), now), 0));
            }
        }
        List<Line> came = new ArrayList<>();
        for (StrayStore.Left s : left) {
            if (keeps(actor, seen.get(s.item()))) {
                came.add(new Line(seen.get(s.item()), s.name(), s.at(), worked(days, s.at(), now), s.id()));
            }
        }
        return new Order(waits, came);
    }

    private static boolean keeps(Actor actor, Seen seen) {
        return seen != null
                && seen.all()
                && actor.access().may(Right.KEEP_SHELF, seen.document().place());
    }

    private int worked(WorkingDays days, Instant from, Instant to) {
        return days.over(
                from.atZone(settings.zone()).toLocalDate(),
                to.atZone(settings.zone()).toLocalDate());
    }
}
