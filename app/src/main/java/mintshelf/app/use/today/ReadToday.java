package mintshelf.app.use.today;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.HeldDocuments;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.change.OpenOrderStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.core.access.Right;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Service;

/** The start page: what waits, what I hold, what came back, what moved, what I had open. */
@Service
public class ReadToday {
    private static final int MOST = 12;
    private static final int MOST_CHANGES = 6;
    private static final int MOST_ASKED = 40;
    private static final String ORDER_ASKED = "order.asked";
    private static final Set<String> ASKING = Set.of("round.returned", ORDER_ASKED);

    private final ListStore lists;
    private final NoticeStore notices;
    private final OpenOrderStore orders;
    private final HouseStore house;
    private final RoundSight rounds;
    private final Sight sight;
    private final HeldDocuments onTrials;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadToday(
            ListStore lists,
            NoticeStore notices,
            OpenOrderStore orders,
            HouseStore house,
            RoundSight rounds,
            Sight sight,
            HeldDocuments onTrials,
            UnitOfWork unit,
            Clock clock) {
        this.onTrials = onTrials;
        this.orders = orders;
        this.house = house;
        this.rounds = rounds;
        this.lists = lists;
        this.notices = notices;
        this.sight = sight;
        this.unit = unit;
        this.clock = clock;
    }

    /** A document with the line that says what happened to it. */
    public record MovedLine(Seen seen, ListStore.Moved moved) {}

    /** A document with why it is among the recent ones. */
    public record RecentLine(Seen seen, ListStore.Recent recent) {}

    /** An order that waits for somebody to start or stop its work. */
    public record ToStart(Seen seen, OpenOrderStore.Asked asked) {}

    /**
     * All of the page.
     *
     * @param back what came back from review
     * @param asked rounds that wait for a signature, the one due first first
     * @param toStart orders that others asked for and whose work the person may start
     * @param changes orders that the person opened
     * @param tried what the person holds on trials
     */
    public record View(
            List<RoundSight.CameBack> back,
            List<RoundSight.RoundView> asked,
            List<ToStart> toStart,
            List<Seen> changes,
            List<Seen> held,
            List<Seen> tried,
            List<NoticeStore.Notice> notices,
            List<MovedLine> moved,
            List<RecentLine> recent,
            List<Seen> out) {}

    /** The number of statements does not grow with what the house holds. */
    public View today(Actor actor) {
        List<Long> held = lists.heldBy(actor.person(), 50);
        List<ListStore.Moved> moved =
                lists.moved(actor.access(), clock.instant().minus(Duration.ofDays(14)), MOST);
        List<ListStore.Recent> recent = lists.recent(actor.person(), MOST);
        Set<Long> ids = new HashSet<>(held);
        moved.forEach(m -> ids.add(m.item()));
        recent.forEach(r -> ids.add(r.item()));
        // Who sees released versions only: what is newly in force, or is not any more.
        boolean reads = !actor.access().maySomewhere(Right.SEE_ALL);
        List<Long> out =
                reads ? lists.outSince(actor.access(), clock.instant().minus(Duration.ofDays(30)), MOST) : List.of();
        ids.addAll(out);
        List<Long> changes = orders.openOf(actor.person(), MOST_CHANGES);
        ids.addAll(changes);
        List<OpenOrderStore.Asked> asked = reads ? List.of() : orders.asked(MOST_ASKED);
        asked.forEach(a -> ids.add(a.item()));
        Map<Long, Seen> seen = sight.of(actor, ids);
        List<Seen> heldSeen = new ArrayList<>();
        held.stream().filter(seen::containsKey).forEach(id -> heldSeen.add(seen.get(id)));
        List<RoundSight.CameBack> back = rounds.cameBack(actor);
        Set<String> told = new HashSet<>();
        back.forEach(b -> told.add("/rounds/" + b.view().round().id()));
        List<ToStart> toStart = asked.stream()
                .filter(a -> seen.containsKey(a.item()) && starts(actor, seen.get(a.item())))
                .map(a -> new ToStart(seen.get(a.item()), a))
                .toList();
        toStart.forEach(t -> told.add("/orders/" + t.asked().item()));
        Set<String> starting = new HashSet<>();
        asked.forEach(a -> starting.add("/orders/" + a.item()));
        return new View(
                back,
                rounds.waitingFor(actor),
                toStart,
                changes.stream().filter(seen::containsKey).map(seen::get).toList(),
                heldSeen,
                onTrials.onTrials(actor, actor.person(), 50).stream()
                        .map(Trials.Tried::tried)
                        .toList(),
                // What stands above as a return or an order is not told a second time; what was started is answered.
                notices.open(actor.person(), MOST).stream()
                        .filter(n -> !(ASKING.contains(n.code()) && told.contains(n.target())))
                        .filter(n -> !n.code().equals(ORDER_ASKED) || starting.contains(n.target()))
                        .toList(),
                moved.stream()
                        .filter(m -> seen.containsKey(m.item()))
                        .map(m -> new MovedLine(seen.get(m.item()), m))
                        .toList(),
                recent.stream()
                        .filter(r -> seen.containsKey(r.item()))
                        .map(r -> new RecentLine(seen.get(r.item()), r))
                        .toList(),
                out.stream().filter(seen::containsKey).map(seen::get).toList());
    }

    /** Whether the order's route lets the actor begin its work now. */
    private boolean starts(Actor actor, Seen order) {
        var stage = order.current().stage();
        return order.all()
                && house.edition(stage.edition())
                        .doing(Effect.START_LINES, stage.code())
                        .filter(m ->
                                actor.access().may(m.who(), order.document().place()))
                        .isPresent();
    }

    public void putAway(Actor actor, long notice) {
        unit.run(() -> notices.putAway(actor.person(), notice, clock.instant()));
    }
}
