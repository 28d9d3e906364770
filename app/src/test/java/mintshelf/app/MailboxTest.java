package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.mail.ReadBounces;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What comes back is read from a mailbox, told once, and stands in the trail of what it asked. */
class MailboxTest {
    private static GreenMail box;
    private static Server server;

    @BeforeAll
    static void start() {
        box = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP));
        box.start();
        box.setUser("back@ebbcote.example", "back", "secret");
        Map<String, String> settings = Map.of(
                "mint-shelf.bounces.host", "127.0.0.1",
                "mint-shelf.bounces.port", Integer.toString(box.getImap().getPort()),
                "mint-shelf.bounces.user", "back",
                "mint-shelf.bounces.password", "secret",
                "mint-shelf.bounces.tls", "false");
        settings.forEach(System::setProperty);
        try {
            server = Server.with();
        } finally {
            settings.keySet().forEach(System::clearProperty);
        }
    }

    @AfterAll
    static void stop() {
        server.stop();
        box.stop();
    }

    private static void arrives(String text) throws Exception {
        MimeMessage message = new MimeMessage(
                Session.getInstance(new Properties()),
                new ByteArrayInputStream(text.getBytes(StandardCharsets.US_ASCII)));
        box.getUserManager().getUser("back").deliver(message);
    }

    private static String report(String id) {
        return String.join(
                "\r\n",
                "From: MAILER-DAEMON@relay.example",
                "To: back@ebbcote.example",
                "Subject: Undelivered",
                "MIME-Version: 1.0",
                "Content-Type: multipart/report; report-type=delivery-status; boundary=\"b\"",
                "",
                "--b",
                "Content-Type: message/delivery-status",
                "",
                "Final-Recipient: rfc822; hedda@ebbcote.example",
                "Action: failed",
                "Status: 5.1.1",
                "Diagnostic-Code: smtp; 550 no such user here",
                "",
                "--b",
                "Content-Type: text/rfc822-headers",
                "",
                "Message-ID: " + id,
                "",
                "--b--",
                "");
    }

    /** Documents of other houses in this process have the same numbers, and their mails lie in the same server. */
    @BeforeEach
    void noMailsOfOthers() throws Exception {
        Server.mail().purgeEmailFromAllMailboxes();
    }

    /** The identification of a mail that told of a document. */
    private static String mailed(long item) {
        String number = server.document(item).number();
        return Arrays.stream(Server.mail().getReceivedMessages())
                .filter(m -> subject(m).contains(number))
                .map(MailboxTest::id)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aMailThatComesBackStandsInTheTrailAndIsToldOnce() throws Exception {
        Review review = new Review(server);
        long item = review.drawing(server.shelf(), "lost.dxf");
        long round = review.send("priya", item);
        server.post();
        String id = mailed(item);
        ReadBounces reads = server.bean(ReadBounces.class);
        arrives("From: x@x.example\r\nTo: back@ebbcote.example\r\nSubject: I am away\r\n\r\nBack on Monday. " + id);
        assertThat(reads.run()).as("a holiday answer").isZero();
        arrives(report(id));
        assertThat(reads.run()).isEqualTo(1);
        assertThat(reads.run()).as("read once").isZero();
        arrives(report(id));
        assertThat(reads.run()).as("told once").isZero();
        List<NoticeStore.Notice> told = server
                .bean(NoticeStore.class)
                .open(server.actor("ines").person(), 50)
                .stream()
                .filter(n -> n.code().equals("mail.bounced"))
                .toList();
        assertThat(told).hasSize(1);
        assertThat(told.get(0).says()).contains("came back: 550 no such user here");
        assertThat(Web.as(server, "priya").get("/rounds/" + round).body()).contains("550 no such user here");
        assertThat(Web.as(server, "ines").get("/house/running").body()).contains("550 no such user here");
    }

    private static String subject(MimeMessage message) {
        try {
            return message.getSubject();
        } catch (MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String id(MimeMessage message) {
        try {
            return message.getMessageID();
        } catch (MessagingException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void aMailboxThatLetsNobodyInIsTriedAgainLater() throws Exception {
        Review review = new Review(server);
        long item = review.drawing(server.shelf(), "waits.dxf");
        review.send("priya", item);
        server.post();
        String id = mailed(item);
        box.getUserManager().deleteUser(box.getUserManager().getUser("back"));
        try {
            assertThat(server.bean(ReadBounces.class).run())
                    .as("it lets nobody in")
                    .isZero();
        } finally {
            box.setUser("back@ebbcote.example", "back", "secret");
        }
        arrives(report(id));
        assertThat(server.bean(ReadBounces.class).run()).as("the next time").isEqualTo(1);
    }
}
