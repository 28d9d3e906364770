package mintshelf.app.effect;

import java.time.Instant;
import java.time.ZoneId;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.SettingStore;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.NoticeKind;
import org.springframework.stereotype.Component;

/** Puts mails into the outbox, for the moment that their receivers chose for such a notice. */
@Component
public class Post {
    private final PersonStore people;
    private final SettingStore settings;
    private final OutboxStore outbox;

    Post(PersonStore people, SettingStore settings, OutboxStore outbox) {
        this.people = people;
        this.settings = settings;
        this.outbox = outbox;
    }

    /** The name of the setting by which somebody chooses when they are mailed. */
    public static String setting(NoticeKind kind) {
        return "mail." + kind.name().toLowerCase(Locale.ROOT);
    }

    /** When somebody is mailed of notices of a kind. */
    public MailTime time(long person, NoticeKind kind) {
        return Optional.ofNullable(settings.settings(person).get(setting(kind)))
                .flatMap(MailTime::named)
                .filter(kind.choices()::contains)
                .orElse(kind.usual());
    }

    /** Whether a mail waits then: who left, has no address or wants none gets none. */
    public boolean mail(long event, String code, long receiver, Optional<Long> ask, Instant now) {
        return mail(event, receiver, ask, time(receiver, NoticeKind.of(code)), Way.LINK, now);
    }

    /** As {@link #mail(long, String, long, Optional, Instant)}, when and with what the house says. */
    public boolean mail(long event, long receiver, Optional<Long> ask, MailTime time, Way way, Instant now) {
        Optional<PersonStore.Person> to =
                people.person(receiver).filter(p -> !p.left() && !p.mail().isEmpty());
        if (to.isEmpty()) return false;
        Optional<Instant> at = time.next(now, ZoneId.of(to.get().zone()));
        at.ifPresent(from -> outbox.mail(event, receiver, ask, way, from));
        return at.isPresent();
    }
}
