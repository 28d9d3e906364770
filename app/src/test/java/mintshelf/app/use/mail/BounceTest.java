package mintshelf.app.use.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class BounceTest {
    private static final String TYPE = "multipart/report; report-type=delivery-status; boundary=\"b\"";

    /** A report after RFC 3464, Appendix E, about a mail of ours. */
    static String report(String id, String action, String why) {
        return String.join(
                "\r\n",
                "From: MAILER-DAEMON@relay.example",
                "To: shelf@ebbcote.example",
                "Subject: Undelivered Mail Returned to Sender",
                "MIME-Version: 1.0",
                "Content-Type: " + TYPE,
                "",
                "--b",
                "Content-Type: text/plain",
                "",
                "Your message could not be delivered.",
                "--b",
                "Content-Type: message/delivery-status",
                "",
                "Reporting-MTA: dns; relay.example",
                "",
                "Final-Recipient: rfc822; somebody@ebbcote.example",
                "Action: " + action,
                "Status: 5.1.1",
                why,
                "",
                "--b",
                "Content-Type: text/rfc822-headers",
                "",
                "Message-ID: " + id,
                "Subject: Sign TG40-3030",
                "",
                "--b--",
                "");
    }

    @Test
    void aReportSaysWhomItDidNotReachOfWhatAndWhy() {
        String text = report(
                "<event-12-15-to-7@ebbcote.example>",
                "failed",
                "Diagnostic-Code: smtp; 550 5.1.1 <somebody@ebbcote.example>:\r\n Recipient address rejected");
        assertThat(Bounce.read(TYPE, text))
                .contains(new Bounce(
                        7, List.of(12L, 15L), "550 5.1.1 <somebody@ebbcote.example>: Recipient address rejected"));
        assertThat(Bounce.read(TYPE, report("<event-12-to-7@x>", "failed", "X: y"))
                        .orElseThrow()
                        .says())
                .isEqualTo("status 5.1.1");
        assertThat(Bounce.read(TYPE, report("<event-0ab3f1-to-7@x>", "failed", "X: y"))
                        .orElseThrow()
                        .events())
                .as("more than an identification can name")
                .isEmpty();
    }

    @Test
    void whatIsNoReportOfAMailOfOursIsPassedOver() {
        String id = "<event-12-to-7@ebbcote.example>";
        assertThat(Bounce.read(TYPE, report(id, "delayed", "X: y"))).isEmpty();
        assertThat(Bounce.read(TYPE, report("<abc@elsewhere.example>", "failed", "X: y")))
                .isEmpty();
        assertThat(Bounce.read("multipart/alternative; boundary=b", report(id, "failed", "X: y")))
                .as("a holiday answer that quotes us")
                .isEmpty();
        assertThat(Bounce.read("multipart/report; report-type=disposition-notification", report(id, "failed", "X: y")))
                .isEmpty();
        assertThat(Bounce.read(TYPE, report("<event-99999999999999999999-to-7@x>", "failed", "X: y"))
                        .map(Bounce::events))
                .contains(List.of());
        assertThat(Bounce.read(TYPE, "x".repeat(300_000) + report(id, "failed", "X: y")))
                .isEmpty();
        assertThat(Bounce.read(TYPE, report(id, "failed", "Diagnostic-Code: " + "y".repeat(100_000))))
                .hasValueSatisfying(b -> assertThat(b.says().length()).isLessThanOrEqualTo(200));
    }
}
