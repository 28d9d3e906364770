package mintshelf.demo;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The demo's stand-in for a mail server: takes mails by SMTP on loopback, keeps them in memory, shows them on a page. */
@Controller
public class PostTray {
    private static final int MOST = 200;
    private static GreenMail server;

    /** Opens the tray on a free port. */
    static synchronized GreenMail open() {
        server = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        server.start();
        return server;
    }

    /**
     * A mail that arrived.
     *
     * @param picture as a data address, empty without one
     * @param lines of its text, each in words, so that addresses can be links
     */
    public record Mail(String id, String to, String subject, Instant sent, String picture, List<List<String>> lines) {}

    @GetMapping("/post-tray")
    String show(@RequestParam Optional<String> mail, Model model) throws MessagingException, IOException {
        // Sent again under the same identification is one mail: mail programs show it once.
        Map<String, Mail> byId = new LinkedHashMap<>();
        List<MimeMessage> arrived =
                new ArrayList<>(server == null ? List.of() : Arrays.asList(server.getReceivedMessages()));
        Collections.reverse(arrived);
        for (MimeMessage message : arrived.subList(0, Math.min(arrived.size(), MOST))) {
            byId.putIfAbsent(message.getMessageID(), read(message));
        }
        List<Mail> mails = new ArrayList<>(byId.values());
        model.addAttribute("mails", mails);
        model.addAttribute(
                "shown",
                mail.flatMap(id -> mails.stream().filter(m -> m.id().equals(id)).findFirst())
                        .orElse(mails.isEmpty() ? null : mails.get(0)));
        return "post-tray/page";
    }

    private static Mail read(MimeMessage message) throws MessagingException, IOException {
        StringBuilder text = new StringBuilder();
        StringBuilder picture = new StringBuilder();
        walk(message, text, picture);
        List<List<String>> lines = text.toString()
                .lines()
                .map(line -> Arrays.asList(line.split("(?= http)|(?<=: )")))
                .toList();
        return new Mail(
                message.getMessageID(),
                message.getAllRecipients()[0].toString(),
                message.getSubject(),
                message.getSentDate().toInstant(),
                picture.toString(),
                lines);
    }

    private static void walk(Part part, StringBuilder text, StringBuilder picture)
            throws MessagingException, IOException {
        if (part.isMimeType("multipart/*")) {
            Multipart parts = (Multipart) part.getContent();
            for (int i = 0; i < parts.getCount(); i++) walk(parts.getBodyPart(i), text, picture);
        } else if (part.isMimeType("text/plain") && text.length() == 0) {
            text.append(part.getContent());
        } else if (part.isMimeType("image/png") && picture.length() == 0) {
            picture.append("data:image/png;base64,")
                    .append(Base64.getEncoder()
                            .encodeToString(part.getInputStream().readAllBytes()));
        }
    }
}
