package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.signoff.Decision;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.scheduling.config.ScheduledTaskHolder;

class MailTest {
    private final Server server = Server.shared();
    private final Review review = new Review(server);

    /** Rounds of other houses in this machine have the same numbers, and one mail server takes the mails of all of them. */
    @BeforeEach
    void noMailsOfOthers() throws Exception {
        server.post();
        Server.mail().purgeEmailFromAllMailboxes();
    }

    /** Sends all that waits and gives the mails of a round, by receiver's login. */
    private List<String> mails(long round) throws Exception {
        server.post();
        List<String> found = new ArrayList<>();
        for (MimeMessage message : messages(round)) {
            found.add(message.getAllRecipients()[0].toString().replaceAll("@.*", "") + ": " + message.getSubject());
        }
        return found;
    }

    private List<MimeMessage> messages(long round) {
        List<MimeMessage> found = new ArrayList<>();
        for (MimeMessage message : Server.mail().getReceivedMessages()) {
            if (body(message).contains("/rounds/" + round + "\"")) found.add(message);
        }
        return found;
    }

    /** With the lines joined that quoted-printable breaks: where, depends on the letters of the address. */
    private static String body(MimeMessage message) {
        return GreenMailUtil.getBody(message).replaceAll("=\r?\n", "");
    }

    /** The tests send when they say so; a house sends by itself. */
    @Test
    void theClockSendsWhatWaits() {
        assertThat(server.bean(ScheduledTaskHolder.class).getScheduledTasks())
                .anyMatch(task -> task.toString().contains("SendMail.run"));
    }

    @Test
    void whoIsAskedNowIsMailedTheQuestionTheDayAndTheLink() throws Exception {
        long item = review.drawing(server.shelf(), "mail.dxf");
        String number = server.document(item).number();
        long round = review.send("priya", item);
        assertThat(mails(round)).anyMatch(m -> m.startsWith("hedda: Will you sign " + number + " A as checked, by "));
        assertThat(mails(round)).noneMatch(m -> m.startsWith("oluwaseun"));
        String body = body(messages(round).get(0));
        assertThat(body).contains("holes for M6").contains("cid:sheet").contains("image/png");
        review.sign("hedda", round);
        assertThat(mails(round)).anyMatch(m -> m.startsWith("oluwaseun: Will you sign " + number));
        review.sign("oluwaseun", round);
        assertThat(mails(round)).anyMatch(m -> m.startsWith("priya: ") && m.contains("it is released"));
    }

    @Test
    void aQuestionThatWasAnsweredBeforeTheMailWentOutIsNotMailed() throws Exception {
        long item = review.drawing(server.shelf(), "late.dxf");
        long round = review.send("priya", item);
        mails(round);
        review.answer("hedda", round, Decision.RETURNED, "one hole short");
        mails(round);
        int before = messages(round).size();
        // As if the mail server had been away until now.
        server.db()
                .execute(
                        "update delivery set state = 'WAITING', sent_at = null where ask in (select id from ask where round = ?)",
                        round);
        mails(round);
        assertThat(messages(round)).hasSize(before);
        assertThat(server.db()
                        .fetch(
                                "select distinct state from delivery where ask in (select id from ask where round = ?)",
                                round)
                        .getValues(0, String.class))
                .containsExactly("NEEDLESS");
    }

    @Test
    void aMailThatIsSentAgainHasTheSameIdentification() throws Exception {
        long item = review.drawing(server.shelf(), "again.dxf");
        long round = review.send("priya", item);
        mails(round);
        int once = messages(round).size();
        // As a node that died between sending and noting it leaves it.
        server.db()
                .execute(
                        "update delivery set state = 'WAITING', sent_at = null where event in (select id from outbox_event where round = ?)",
                        round);
        mails(round);
        List<MimeMessage> twice = messages(round);
        Set<String> ids = new TreeSet<>();
        for (MimeMessage message : twice) ids.add(message.getMessageID());
        assertThat(twice).hasSize(once * 2);
        assertThat(ids).hasSize(once);
    }
}
