package mintshelf.app.use.today;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sight;
import mintshelf.app.use.UnitOfWork;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Service;

/** The start page: what waits, what I hold, what came back, what moved, what I had open. */
@Service
public class ReadToday {
    private static final int MOST = 12;
    private final ListStore lists;
    private final NoticeStore notices;
    private final Sight sight;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadToday(ListStore lists, NoticeStore notices, Sight sight, UnitOfWork unit, Clock clock) {
        this.lists = lists;
        this.notices = notices;
        this.sight = sight;
        this.unit = unit;
        this.clock = clock;
    }

    /** A document with the line that says what happened to it. */
    public record Line(Seen seen, ListStore.Moved moved) {}

    /** A document with why it is among the recent ones. */
    public record RecentLine(Seen seen, ListStore.Recent recent) {}

    /** All of the page. */
    public record View(
            List<Seen> held,
            List<NoticeStore.Notice> notices,
            List<Line> moved,
            List<RecentLine> recent,
            List<Seen> out) {}

    /** Six statements, whatever the house holds. */
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
        Map<Long, Seen> seen = sight.of(actor, ids);
        List<Seen> heldSeen = new ArrayList<>();
        held.stream().filter(seen::containsKey).forEach(id -> heldSeen.add(seen.get(id)));
        return new View(
                heldSeen,
                notices.open(actor.person(), MOST),
                moved.stream()
                        .filter(m -> seen.containsKey(m.item()))
                        .map(m -> new Line(seen.get(m.item()), m))
                        .toList(),
                recent.stream()
                        .filter(r -> seen.containsKey(r.item()))
                        .map(r -> new RecentLine(seen.get(r.item()), r))
                        .toList(),
                out.stream().filter(seen::containsKey).map(seen::get).toList());
    }

    public void putAway(Actor actor, long notice) {
        unit.run(() -> notices.putAway(actor.person(), notice, clock.instant()));
    }
}
