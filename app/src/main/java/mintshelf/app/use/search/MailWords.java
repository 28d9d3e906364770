package mintshelf.app.use.search;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Properties;
import java.util.Set;
import java.util.regex.Pattern;

/** What kept mails say (RFC 5322, MIME): subject, sender and the parts that are text; of what is enclosed its names alone. */
final class MailWords {
    private static final int DEEP = 8;
    private static final int PARTS = 200;
    private static final Pattern BEGINS = Pattern.compile(
            "\\A(?:From |(?:[A-Za-z][A-Za-z0-9-]{1,60}: ?[^\\r\\n]*\\r?\\n(?:[ \\t][^\\r\\n]*\\r?\\n)*){2,})");
    private static final Pattern HEADS =
            Pattern.compile("(?im)^(?:received|return-path|message-id|mime-version|subject|from|to|date):");

    private MailWords() {}

    /** Whether a text begins as a mail does. */
    static boolean isMail(byte[] file) {
        String head = new String(file, 0, Math.min(4096, file.length), StandardCharsets.ISO_8859_1);
        return BEGINS.matcher(head).find()
                && HEADS.matcher(head).results().limit(3).count() >= 3;
    }

    /** Its lines, each once, up to a number of letters; what cannot be read says nothing. */
    static List<String> of(byte[] file, int most) {
        Lines lines = new Lines(most);
        try {
            MimeMessage mail = new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(file));
            lines.add(Objects.requireNonNullElse(mail.getSubject(), ""));
            if (mail.getFrom() != null)
                lines.add(Arrays.toString(mail.getFrom()).replaceAll("[\\[\\]]", ""));
            read(mail, lines, 0);
        } catch (MessagingException | IOException | RuntimeException e) {
            return lines.all();
        }
        return lines.all();
    }

    private static void read(Part part, Lines lines, int deep) throws MessagingException, IOException {
        if (deep > DEEP || !lines.goOn()) return;
        if (part.getFileName() != null) {
            lines.add(part.getFileName());
            return;
        }
        if (part.isMimeType("multipart/*") && part.getContent() instanceof Multipart parts) {
            for (int i = 0; i < Math.min(PARTS, parts.getCount()); i++) {
                BodyPart one = parts.getBodyPart(i);
                read(one, lines, deep + 1);
            }
        } else if (part.isMimeType("text/plain") || part.isMimeType("text/html")) {
            try (InputStream in = part.getInputStream()) {
                String text = new String(in.readNBytes(4 * lines.left()), StandardCharsets.UTF_8);
                if (part.isMimeType("text/html")) text = text.replaceAll("<[^>]*>", "\n");
                text.lines().forEach(lines::add);
            }
        }
    }

    private static final class Lines {
        private final Set<String> all = new LinkedHashSet<>();
        private int left;

        Lines(int most) {
            this.left = most;
        }

        int left() {
            return left;
        }

        boolean goOn() {
            return left > 1;
        }

        void add(String raw) {
            String line = raw.strip().replaceAll("\\s+", " ");
            if (line.length() < 2 || line.length() > left || !all.add(line)) return;
            left -= line.length() + 1;
        }

        List<String> all() {
            return List.copyOf(all);
        }
    }
}
