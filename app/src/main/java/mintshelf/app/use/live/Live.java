package mintshelf.app.use.live;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Grants;
import mintshelf.app.sight.Moments;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.record.RecordTailStore;
import mintshelf.app.store.record.RecordTailStore.Line;
import mintshelf.core.notice.Moment;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Tells open pages what moved. Every node reads the end of the record, so that it does not matter on which one something was done; nobody
 * reads it while nobody listens. Rights are asked each time: who sees released work only hears of what comes into force, and nothing else.
 */
@Service
public class Live {
    /** An act stands in the record at the moment when it was noted; it may be seen as late as its transaction is long. */
    private static final Duration LATE = Duration.ofSeconds(10);

    private static final int MOST = 2_000;
    /** Open pages of one person. */
    private static final int PAGES = 12;

    private static final int ALL_PAGES = 3_000;

    private final RecordTailStore record;
    private final SpineStore spines;
    private final NoticeStore notices;
    private final Grants grants;
    private final Clock clock;

    private final List<Listener> listeners = new CopyOnWriteArrayList<>();
    private final Map<RecordTailStore.Place, Instant> known = new LinkedHashMap<>();

    Live(RecordTailStore record, SpineStore spines, NoticeStore notices, Grants grants, Clock clock) {
        this.record = record;
        this.spines = spines;
        this.notices = notices;
        this.grants = grants;
        this.clock = clock;
    }

    /**
     * What a page shows.
     *
     * @param shelf 0 for none
     * @param document 0 for none
     * @param today whether it shows what waits for its reader
     */
    public record Scope(long shelf, long document, boolean today) {}

    /** A document that moved; {@code says} is empty for who does not see work in preparation. */
    public record Moved(long document, String says) {}

    /** What moved, at most once for each document; {@code today} where something new waits for the reader. */
    public record News(List<Moved> documents, boolean today) {
        public boolean isEmpty() {
            return documents.isEmpty() && !today;
        }
    }

    private static final class Listener {
        private final long person;
        private final Scope scope;
        private final Instant since;
        private final Consumer<News> to;
        private volatile long notice;

        Listener(long person, Scope scope, Instant since, Consumer<News> to) {
            this.person = person;
            this.scope = scope;
            this.since = since;
            this.to = to;
        }
    }

    /** Ends listening. */
    public interface Ends {
        void end();
    }

    /**
     * Tells {@code to} from now on what moves within a scope, seldom more than two seconds late.
     *
     * @return nothing when too many pages listen; they ask from time to time instead
     */
    public Optional<Ends> listen(Actor actor, Scope scope, Consumer<News> to) {
        // One's own acts up to now are on the page.
        Listener listener = new Listener(actor.person(), scope, clock.instant(), to);
        synchronized (known) {
            long mine =
                    listeners.stream().filter(l -> l.person == actor.person()).count();
            if (mine >= PAGES || listeners.size() >= ALL_PAGES) return Optional.empty();
            if (scope.today()) listener.notice = latestNotice(actor.person());
            // Whoever comes first knows everything up to now.
            if (listeners.isEmpty()) fresh();
            listeners.add(listener);
        }
        return Optional.of(() -> listeners.remove(listener));
    }

    private long latestNotice(long person) {
        return notices.latest(Set.of(person)).getOrDefault(person, 0L);
    }

    /** What of the record's end was not seen before. */
    private List<Line> fresh() {
        Instant now = clock.instant();
        known.values().removeIf(at -> at.isBefore(now.minus(LATE.multipliedBy(3))));
        List<Line> fresh = new ArrayList<>();
        for (Line line : record.since(now.minus(LATE), MOST)) {
            if (known.put(line.place(), line.at()) == null) fresh.add(line);
        }
        return fresh;
    }

    /** Looks at the end of the record. */
    @Scheduled(initialDelayString = "PT3S", fixedDelayString = "PT1.2S")
    public void look() {
        List<Line> fresh;
        synchronized (known) {
            if (listeners.isEmpty()) return;
            fresh = fresh();
        }
        Map<Long, Spine> documents = fresh.isEmpty()
                ? Map.of()
                : spines.spines(fresh.stream().map(Line::item).distinct().toList());
        Map<Long, Long> latest = notices.latest(listeners.stream()
                .filter(l -> l.scope.today())
                .map(l -> l.person)
                .collect(Collectors.toSet()));
        Map<Long, Optional<Actor>> actors = new LinkedHashMap<>();
        for (Listener l : listeners) {
            Optional<Actor> actor =
                    fresh.isEmpty() ? Optional.empty() : actors.computeIfAbsent(l.person, grants::actor);
            List<Moved> moved = actor.map(a -> moved(a, l.scope, fresh, documents, OptionalLong.of(l.person), l.since))
                    .orElse(List.of());
            long notice = latest.getOrDefault(l.person, 0L);
            boolean today = l.scope.today() && notice > l.notice;
            if (today) l.notice = notice;
            News news = new News(moved, today);
            if (!news.isEmpty()) l.to.accept(news);
        }
    }

    /** What moved, and the moment from which to ask next. */
    public record Answer(News news, Instant now) {}

    /** What moved within a scope after a moment, for who asks from time to time; nothing for the first question. */
    public Answer since(Actor actor, Scope scope, Instant after) {
        Instant now = clock.instant();
        if (after.equals(Instant.EPOCH)) return new Answer(new News(List.of(), false), now);
        Instant earliest = now.minus(Duration.ofHours(1));
        Instant from = after.isBefore(earliest) ? earliest : after;
        List<Line> lines = record.since(from, MOST);
        Map<Long, Spine> documents =
                spines.spines(lines.stream().map(Line::item).distinct().toList());
        boolean today = scope.today() && notices.isSince(actor.person(), from);
        return new Answer(
                new News(moved(actor, scope, lines, documents, OptionalLong.of(actor.person()), now), today), now);
    }

    private static List<Moved> moved(
            Actor actor,
            Scope scope,
            Collection<Line> lines,
            Map<Long, Spine> documents,
            OptionalLong self,
            Instant since) {
        Map<Long, Moved> moved = new LinkedHashMap<>();
        Set<Long> unseen = new HashSet<>();
        for (Line line : lines) {
            Spine spine = documents.get(line.item());
            if (spine == null || unseen.contains(line.item())) continue;
            boolean within = scope.document() == line.item()
                    || (scope.shelf() > 0 && spine.document().place().shelf() == scope.shelf());
            boolean own = self.isPresent()
                    && line.person() == self.getAsLong()
                    && !line.at().isAfter(since);
            if (!within || own) continue;
            Optional<Seen> seen = Seen.by(actor, spine);
            if (seen.isEmpty()) {
                unseen.add(line.item());
                continue;
            }
            boolean inForce = Moments.isMoment(line.act()) && Moments.of(line.act(), spine) == Moment.RELEASE;
            if (seen.get().all()) {
                moved.put(line.item(), new Moved(line.item(), line.by() + " " + line.says()));
            } else if (inForce) {
                moved.put(line.item(), new Moved(line.item(), ""));
            }
        }
        return List.copyOf(moved.values());
    }

    /** How many pages listen on this node. */
    public int listening() {
        return listeners.size();
    }
}
