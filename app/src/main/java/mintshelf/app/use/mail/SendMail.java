package mintshelf.app.use.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.outbox.OutboxStore.Delivery;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.mail.Enclosures.Enclosure;
import mintshelf.core.base.ContentHash;
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

    /** How long a mail waits for a page that is being made. */
    private static final Duration WAIT = Duration.ofSeconds(10);

    private static final int TRIES = 8;
    /** Notices in one mail. */
    private static final int TOGETHER = 40;

    private final OutboxStore outbox;
    private final PersonStore people;
    private final Letters letters;
    private final Recorder recorder;
    private final UnitOfWork unit;
    private final Settings settings;
    private final Clock clock;
    private final ObjectProvider<JavaMailSender> server;

    public SendMail(
            OutboxStore outbox,
            PersonStore people,
            Letters letters,
            Recorder recorder,
            UnitOfWork unit,
            Settings settings,
            Clock clock,
            ObjectProvider<JavaMailSender> server) {
        this.outbox = outbox;
        this.people = people;
        this.letters = letters;
        this.recorder = recorder;
        this.unit = unit;
        this.settings = settings;
        this.clock = clock;
        this.server = server;
    }

    /** Sends all that waits. Without a mail server it waits until there is one. */
    @Scheduled(initialDelayString = "${mint-shelf.mail-every:PT3S}", fixedDelayString = "${mint-shelf.mail-every:PT3S}")
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
        List<Delivery> all = new ArrayList<>(List.of(next.get()));
        // What waits for the same person goes in the same mail. A link that works once goes alone.
        if (!next.get().code().equals(OutboxStore.INVITED)) {
            all.addAll(unit.run(() -> outbox.takeAlso(next.get(), now, now.plus(LEASE), TOGETHER)));
            // What is asked comes before what is told: the first one names the mail.
            all.sort(Comparator.comparing((Delivery d) -> d.ask().isEmpty()).thenComparing(Delivery::id));
        }
        send(sender, all);
        return true;
    }

    private void send(JavaMailSender sender, List<Delivery> all) {
        List<Delivery> written = new ArrayList<>();
        try {
            Optional<PersonStore.Person> to = people.person(all.get(0).receiver())
                    .filter(p -> !p.left() && !p.mail().isEmpty());
            List<Letter> parts = new ArrayList<>();
            for (Delivery each : all) {
                if (letters.waits(each)) {
                    unit.run(() -> outbox.wait(each.id(), clock.instant().plus(WAIT)));
                    continue;
                }
                Optional<Letter> letter = to.flatMap(p -> letters.letter(each, p));
                if (letter.isEmpty()) {
                    unit.run(() -> outbox.giveUp(each.id(), true, "Nobody needs it any more."));
                } else {
                    written.add(each);
                    parts.add(letter.get());
                }
            }
            if (written.isEmpty()) return;
            Letter letter = parts.size() == 1
                    ? parts.get(0)
                    : Letter.together(parts, settings.origin(), settings.largestMail());
            sender.send(message(sender, written, to.orElseThrow(), letter));
            unit.run(() -> {
                for (Delivery each : written) outbox.sent(each.id(), clock.instant());
                for (Enclosure file : letter.files()) note(file, to.orElseThrow());
            });
        } catch (MessagingException | RuntimeException e) {
            // Whatever was not found needless waits for another try.
            List<Delivery> left = written.isEmpty() ? all : written;
            left.forEach(each -> failed(each, e));
        }
    }

    private void note(Enclosure file, PersonStore.Person to) {
        recorder.noteByItself(file.item(), "file.mailed", "mailed " + file.name() + " to " + to.name());
    }

    private void failed(Delivery delivery, Exception e) {
        LOG.warn("A mail of event {} did not go out, try {}: {}", delivery.event(), delivery.tries() + 1, e.toString());
        if (delivery.tries() + 1 >= TRIES) {
            unit.run(() -> outbox.giveUp(delivery.id(), false, "The mail server refused it."));
        } else {
            Instant again = clock.instant().plus(Duration.ofSeconds(20L << delivery.tries()));
            unit.run(() -> outbox.later(delivery.id(), again, "The mail server did not take it yet."));
        }
    }

    /** The same for the same events, so that what is sent twice is known to be the same mail. */
    private static String events(List<Delivery> all) {
        String events = all.stream()
                .map(d -> Long.toString(d.event()))
                .sorted()
                .distinct()
                .collect(Collectors.joining("-"));
        return events.length() <= 60
                ? events
                : ContentHash.compute(events.getBytes(StandardCharsets.UTF_8)).shortHex();
    }

    private MimeMessage message(JavaMailSender sender, List<Delivery> all, PersonStore.Person to, Letter letter)
            throws MessagingException {
        String id = "<event-" + events(all) + "-to-" + to.id() + "@"
                + settings.mailFrom().replaceFirst("^.*@", "") + ">";
        Optional<byte[]> picture = letter.picture().flatMap(letters::picture);
        MimeMessage message = new Identified(sender.createMimeMessage(), id);
        MimeMessageHelper helper = new MimeMessageHelper(message, true, "UTF-8");
        helper.setFrom(settings.mailFrom());
        helper.setTo(to.mail());
        helper.setSubject(letter.subject());
        helper.setText(letter.text(), letter.html(picture.isPresent()));
        if (picture.isPresent()) {
            helper.addInline("sheet", new ByteArrayResource(picture.get()), "image/png");
        }
        for (Enclosure file : letter.files()) {
            helper.addAttachment(
                    file.name(),
                    new ByteArrayResource(letters.bytes(file)),
                    file.content().kind().mediaType());
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
