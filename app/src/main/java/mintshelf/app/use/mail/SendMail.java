package mintshelf.app.use.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.outbox.OutboxStore.Delivery;
import mintshelf.app.store.person.PersonStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Takes what is to be mailed from the outbox: at least once, each time with the same Message-ID; what nobody needs any more is not
 * sent. Links open pages and never act.
 */
@Service
public class SendMail {
    private static final Logger LOG = LoggerFactory.getLogger(SendMail.class);
    private static final Duration LEASE = Duration.ofMinutes(2);

    private static final int TRIES = 8;

    private final OutboxStore outbox;
    private final PersonStore people;
    private final Letters letters;
    private final SheetPdf pictures;
    private final ReadingRoom room;
    private final UnitOfWork unit;
    private final Settings settings;
    private final Clock clock;
    private final ObjectProvider<JavaMailSender> server;

    public SendMail(
            OutboxStore outbox,
            PersonStore people,
            Letters letters,
            SheetPdf pictures,
            ReadingRoom room,
            UnitOfWork unit,
            Settings settings,
            Clock clock,
            ObjectProvider<JavaMailSender> server) {
        this.outbox = outbox;
        this.people = people;
        this.letters = letters;
        this.pictures = pictures;
        this.room = room;
        this.unit = unit;
        this.settings = settings;
        this.clock = clock;
        this.server = server;
    }

    /** Sends all that waits. Without a mail server it waits until there is one. */
    @Scheduled(initialDelayString = "PT3S", fixedDelayString = "PT3S")
    public void run() {
        if (server.getIfAvailable() == null) return;
        while (sendNext()) {
            // until nothing waits
        }
    }

    /** Whether something waited. */
    public boolean sendNext() {
        JavaMailSender sender = server.getIfAvailable();
        if (sender == null) return false;
        Instant now = clock.instant();
        Optional<Delivery> next = unit.run(() -> outbox.take(now, now.plus(LEASE)));
        if (next.isEmpty()) return false;
        Delivery delivery = next.get();
        try {
            Optional<PersonStore.Person> to = people.person(delivery.receiver())
                    .filter(p -> !p.left() && !p.mail().isEmpty());
            Optional<Letter> letter = to.flatMap(p -> letters.letter(delivery, p));
            if (letter.isEmpty()) {
                unit.run(() -> outbox.giveUp(delivery.id(), true, "Nobody needs it any more."));
                return true;
            }
            sender.send(message(sender, delivery, to.get(), letter.get()));
            unit.run(() -> outbox.sent(delivery.id(), clock.instant()));
        } catch (MessagingException | RuntimeException e) {
            LOG.warn(
                    "A mail of event {} did not go out, try {}: {}",
                    delivery.event(),
                    delivery.tries() + 1,
                    e.toString());
            if (delivery.tries() + 1 >= TRIES) {
                unit.run(() -> outbox.giveUp(delivery.id(), false, "The mail server refused it."));
            } else {
                Instant again = clock.instant().plus(Duration.ofSeconds(20L << delivery.tries()));
                unit.run(() -> outbox.later(delivery.id(), again, "The mail server did not take it yet."));
            }
        }
        return true;
    }

    private MimeMessage message(JavaMailSender sender, Delivery delivery, PersonStore.Person to, Letter letter)
            throws MessagingException {
        String id = "<event-" + delivery.event() + "-to-" + to.id() + "@"
                + settings.mailFrom().replaceFirst("^.*@", "") + ">";
        Optional<byte[]> picture = letter.picture().flatMap(content -> room.within(() -> pictures.png(content, 360)));
        MimeMessage message = new Identified(sender.createMimeMessage(), id);
        MimeMessageHelper helper = new MimeMessageHelper(message, true, "UTF-8");
        helper.setFrom(settings.mailFrom());
        helper.setTo(to.mail());
        helper.setSubject(letter.subject());
        helper.setText(letter.text(), letter.html(picture.isPresent()));
        if (picture.isPresent()) {
            helper.addInline("sheet", new ByteArrayResource(picture.get()), "image/png");
        }
        message.setHeader("Auto-Submitted", "auto-generated"); // RFC 3834: no holiday answers come back
        return message;
    }

    /** A message that keeps the identification it was given (RFC 5322, 3.6.4), whatever number of times it is sent. */
    private static final class Identified extends MimeMessage {
        private final String id;

        Identified(MimeMessage blank, String id) {
            super(blank.getSession());
            this.id = id;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", id);
        }
    }
}
