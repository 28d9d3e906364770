package mintshelf.app.use.mail;

import java.time.Clock;
import java.time.Duration;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.outbox.OutboxStore.Delivery;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.mail.Enclosures.Enclosure;
import mintshelf.core.signoff.Ask;
import org.springframework.stereotype.Component;

/** Writes letters of what waits to be told, as their receivers may see it at this moment. */
@Component
class Letters {
    private final GrantStore grants;
    private final RoundSight rounds;
    private final Sight sight;
    private final LetterSheets sheets;
    private final Enclosures enclosures;
    private final Settings settings;
    private final Clock clock;

    Letters(
            GrantStore grants,
            RoundSight rounds,
            Sight sight,
            LetterSheets sheets,
            Enclosures enclosures,
            Settings settings,
            Clock clock) {
        this.grants = grants;
        this.rounds = rounds;
        this.sight = sight;
        this.sheets = sheets;
        this.enclosures = enclosures;
        this.settings = settings;
        this.clock = clock;
    }

    /** News older than this stands on Today; a mail of it would only confuse. */
    private static final Duration STALE = Duration.ofDays(3);

    private static final DateTimeFormatter DUE = DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);

    /** What is written to somebody; nothing when nobody needs it any more. */
    Optional<Letter> letter(Delivery delivery, PersonStore.Person to) {
        Actor actor = new Actor(grants.access(to.id(), to.name()), to.login(), to.zone(), "mail");
        if (delivery.round().isEmpty()) return news(delivery, actor);
        RoundView view;
        try {
            view = rounds.round(actor, delivery.round().get());
        } catch (NotThere e) {
            return Optional.empty();
        }
        if (delivery.ask().isPresent()) {
            Optional<Ask> ask = view.mine().filter(a -> a.id() == delivery.ask().get());
            boolean again = delivery.code().equals("sign.reminded");
            return ask.map(a -> Letter.asking(
                    view, a, forWhom(a, to), again, settings.origin(), DUE.format(a.due()), sheets.differences(view)));
        }
        return isStale(delivery)
                ? Optional.empty()
                : Optional.of(Letter.telling(view, delivery.says(), settings.origin()));
    }

    /** The name of whom somebody is asked for, as their deputy. */
    private static String forWhom(Ask ask, PersonStore.Person to) {
        return ask.person().filter(p -> p != to.id()).isPresent() ? ask.personName() : "";
    }

    /** News of a document that no round stands behind; nothing when it is old, or the document is not there for the person. */
    private Optional<Letter> news(Delivery delivery, Actor actor) {
        if (delivery.code().equals(OutboxStore.INVITED)) {
            return Optional.of(Letter.inviting(delivery.says(), settings.origin() + delivery.to()));
        }
        if (isStale(delivery)) return Optional.empty();
        if (delivery.item().isEmpty()) {
            return Optional.of(Letter.word(delivery.says(), settings.origin() + delivery.to()));
        }
        try {
            Seen seen = sight.of(actor, delivery.item().get());
            Letter letter = Letter.news(seen, delivery.says(), settings.origin(), delivery.to());
            return Optional.of(letter.with(enclosures.of(delivery, actor, seen)));
        } catch (NotThere e) {
            return Optional.empty();
        }
    }

    Optional<byte[]> picture(StoredContent content) {
        return sheets.picture(content);
    }

    byte[] bytes(Enclosure file) {
        return enclosures.bytes(file);
    }

    /** Whether what is to go with it is being made. */
    boolean waits(Delivery delivery) {
        return enclosures.waits(delivery);
    }

    private boolean isStale(Delivery delivery) {
        return delivery.at().isBefore(clock.instant().minus(STALE));
    }
}
