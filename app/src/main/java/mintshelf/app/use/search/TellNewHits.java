package mintshelf.app.use.search;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.Post;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Grants;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.store.search.KeptSearchStore.Kept;
import mintshelf.app.store.search.KeptSearchStore.ToTell;
import mintshelf.core.base.Numbers;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.core.notice.MailTime;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Tells people each morning what their kept searches find anew, as they may see it themselves. */
@Service
public class TellNewHits {
    private static final LocalTime MORNING = LocalTime.of(7, 0);
    private static final int PORTION = 1000;
    private static final int NAMED = 3;

    private final KeptSearchStore store;
    private final Search search;
    private final Grants people;
    private final NoticeStore notices;
    private final OutboxStore outbox;
    private final Post post;
    private final UnitOfWork unit;
    private final Clock clock;

    TellNewHits(
            KeptSearchStore store,
            Search search,
            Grants people,
            NoticeStore notices,
            OutboxStore outbox,
            Post post,
            UnitOfWork unit,
            Clock clock) {
        this.store = store;
        this.search = search;
        this.people = people;
        this.notices = notices;
        this.outbox = outbox;
        this.post = post;
        this.unit = unit;
        this.clock = clock;
    }

    @Scheduled(initialDelayString = "PT1M", fixedDelayString = "PT5M")
    public void run() {
        Instant now = clock.instant();
        for (ToTell who : store.toTell(now, PORTION)) {
            Optional<Actor> actor = people.actor(who.person());
            // Who has left is asked again tomorrow: they may come back.
            if (actor.isEmpty()) unit.run(() -> store.told(who, now));
            else if (isDue(actor.get(), who, now)) tell(actor.get(), who, now);
        }
    }

    /** Whether the morning has come since they were told last, where they are. */
    private static boolean isDue(Actor actor, ToTell who, Instant now) {
        ZoneId zone = ZoneId.of(actor.zone());
        Instant morning =
                now.atZone(zone).toLocalDate().atTime(MORNING).atZone(zone).toInstant();
        return !now.isBefore(morning) && who.since().isBefore(morning);
    }

    private void tell(Actor actor, ToTell who, Instant now) {
        Optional<Kept> kept = store.one(who.person(), who.search());
        Instant since =
                kept.flatMap(Kept::looked).filter(at -> at.isAfter(who.since())).orElse(who.since());
        Search.Found found = kept.map(k -> search.movedSince(
                        actor, new Search.Wish(k.q(), Ask.Order.CHANGED, false, 0, NAMED, false), since))
                .orElse(Search.Found.NOTHING);
        unit.run(() -> {
            if (!store.told(who, now) || kept.isEmpty() || found.hits().isEmpty()) return;
            String says = says(kept.get(), found);
            String to = "/searches/" + who.search();
            long event = outbox.event("search.fresh", Optional.empty(), Optional.empty(), who.person(), says, to, now);
            post.mail(event, who.person(), Optional.empty(), MailTime.AT_ONCE, Way.LINK, now);
            notices.tell(who.person(), "search.fresh", Optional.empty(), who.person(), says, to, now);
        });
    }

    private static String says(Kept kept, Search.Found found) {
        int more = found.total() - found.hits().size();
        return Numbers.count(found.total(), "hit moved", "hits moved") + " in “" + kept.name() + "”: "
                + found.hits().stream()
                        .map(h -> h.seen().document().number() + " "
                                + h.seen().document().title())
                        .collect(Collectors.joining(", "))
                + (more > 0 ? " and " + Numbers.grouped(more) + " more" : "");
    }
}
