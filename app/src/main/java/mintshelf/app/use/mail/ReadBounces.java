package mintshelf.app.use.mail;

import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.search.FlagTerm;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Properties;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.outbox.OutboxStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.core.access.Right;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Reads the mailbox to which mails come back (IMAP, RFC 9051): what could not be delivered stands as failed in the trail of what it asked,
 * and who keeps the house is told whose address it is. Whatever else lies there is passed over. On any number of nodes each is told once.
 */
@Service
public class ReadBounces {
    private static final Logger LOG = LoggerFactory.getLogger(ReadBounces.class);
    private static final int AT_ONCE = 200;
    private static final String TIMEOUT = "20000";

    private final OutboxStore outbox;
    private final PersonStore people;
    private final NoticeStore notices;
    private final Telling telling;
    private final Settings settings;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    ReadBounces(
            OutboxStore outbox,
            PersonStore people,
            NoticeStore notices,
            Telling telling,
            Settings settings,
            UnitOfWork unit,
            Recorder recorder,
            Clock clock) {
        this.outbox = outbox;
        this.people = people;
        this.notices = notices;
        this.telling = telling;
        this.settings = settings;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Looks into the mailbox; how many mails had come back. */
    @Scheduled(initialDelayString = "PT40S", fixedDelayString = "PT3M")
    public int run() {
        Settings.Bounces box = settings.bounces();
        if (box.host().isEmpty()) return 0;
        String protocol = box.tls() ? "imaps" : "imap";
        Properties how = new Properties();
        how.put("mail." + protocol + ".connectiontimeout", TIMEOUT);
        how.put("mail." + protocol + ".timeout", TIMEOUT);
        int back = 0;
        try (Store store = Session.getInstance(how).getStore(protocol)) {
            store.connect(box.host(), box.port(), box.user(), box.password());
            try (Folder folder = store.getFolder("INBOX")) {
                folder.open(Folder.READ_WRITE);
                Message[] unread = folder.search(new FlagTerm(new Flags(Flags.Flag.SEEN), false));
                for (int i = 0; i < Math.min(AT_ONCE, unread.length); i++) {
                    if (Bounce.read(unread[i].getContentType(), text(unread[i]))
                            .filter(this::came)
                            .isPresent()) back++;
                    unread[i].setFlag(Flags.Flag.SEEN, true);
                }
            }
        } catch (MessagingException | IOException e) {
            LOG.warn("The mailbox of what comes back could not be read: {}", e.toString());
        }
        return back;
    }

    /** The begin of a message; the rest is not taken into memory. */
    private static String text(Message message) throws MessagingException, IOException {
        ByteArrayOutputStream begin = new ByteArrayOutputStream();
        try {
            message.writeTo(new OutputStream() {
                @Override
                public void write(int b) throws IOException {
                    if (begin.size() >= Bounce.LOOKED_AT) throw new Enough();
                    begin.write(b);
                }
            });
        } catch (Enough e) {
            return begin.toString(StandardCharsets.ISO_8859_1);
        }
        return begin.toString(StandardCharsets.ISO_8859_1);
    }

    private static final class Enough extends IOException {}

    /** Whether it was not known before. */
    private boolean came(Bounce bounce) {
        Optional<Person> to = people.person(bounce.person()).filter(p -> !p.left());
        if (to.isEmpty()) return false;
        return unit.run(() -> {
            String says = "The mail came back: " + bounce.says();
            boolean fresh = outbox.bounced(bounce.person(), bounce.events(), says) > 0;
            if (!fresh && !bounce.events().isEmpty()) return false;
            String what = "the mail to " + to.get().name() + " came back: " + bounce.says();
            recorder.noteHouse(OptionalLong.empty(), "server", "mail.bounced", what);
            Set<Long> keepers = telling.having(Right.KEEP_HOUSE_RULES, Set.of());
            String target = "/people/" + bounce.person();
            for (long keeper : keepers) {
                // One notice of an address is enough until somebody has looked.
                if (notices.isOpen(keeper, "mail.bounced", target)) continue;
                notices.tell(
                        keeper,
                        "mail.bounced",
                        Optional.empty(),
                        bounce.person(),
                        "A mail to " + to.get().name() + " came back: " + bounce.says(),
                        target,
                        clock.instant());
            }
            return true;
        });
    }
}
