package mintshelf.demo;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
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
     * @param files names of what goes with it
     */
    public record Mail(
            String id,
            String to,
            String subject,
            Instant sent,
            String picture,
            List<List<String>> lines,
            List<String> files) {}

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

    /** A file that went with a mail. */
    @GetMapping("/post-tray/file")
    ResponseEntity<byte[]> file(@RequestParam String mail, @RequestParam int n) throws MessagingException, IOException {
        for (MimeMessage message : server == null ? new MimeMessage[0] : server.getReceivedMessages()) {
            if (!message.getMessageID().equals(mail)) continue;
            List<Part> files = new ArrayList<>();
            walk(message, new StringBuilder(), new StringBuilder(), files);
            if (n < 0 || n >= files.size()) break;
            ContentDisposition as = ContentDisposition.attachment()
                    .filename(files.get(n).getFileName(), StandardCharsets.UTF_8)
                    .build();
            return ResponseEntity.ok()
                    .header(HttpHeaders.CONTENT_DISPOSITION, as.toString())
                    .contentType(MediaType.APPLICATION_OCTET_STREAM)
                    .body(files.get(n).getInputStream().readAllBytes());
        }
        return ResponseEntity.notFound().build();
    }

    private static Mail read(MimeMessage message) throws MessagingException, IOException {
        StringBuilder text = new StringBuilder();
        StringBuilder picture = new StringBuilder();
        List<Part> files = new ArrayList<>();
        walk(message, text, picture, files);
        List<String> names = new ArrayList<>();
        for (Part file : files) names.add(file.getFileName());
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
                lines,
                names);
    }

    private static void walk(Part part, StringBuilder text, StringBuilder picture, List<Part> files)
            throws MessagingException, IOException {
        if (Part.ATTACHMENT.equalsIgnoreCase(part.getDisposition())) {
            files.add(part);
        } else if (part.isMimeType("multipart/*")) {
            Multipart parts = (Multipart) part.getContent();
            for (int i = 0; i < parts.getCount(); i++) walk(parts.getBodyPart(i), text, picture, files);
        } else if (part.isMimeType("text/plain") && text.length() == 0) {
            text.append(part.getContent());
        } else if (part.isMimeType("image/png") && picture.length() == 0) {
            picture.append("data:image/png;base64,")
                    .append(Base64.getEncoder()
                            .encodeToString(part.getInputStream().readAllBytes()));
        }
    }
}
