package mintshelf.core.redline.exchange;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One page that shows a sheet with its remarks, and takes answers and new remarks without a server: a file by itself, which fetches
 * nothing and sends nothing. What is written on it is saved as a file of Web Annotations, which is taken in by id.
 */
public final class ReplyPage {
    private static final String PAGE = read("reply-page.html");
    private static final String SCRIPT = read("reply-page.js");
    private static final String POLICY = "sha256-" + hash(SCRIPT);

    private static final Pattern PLACE = Pattern.compile("%([A-Z]+)%");

    private ReplyPage() {}

    private static String read(String name) {
        try (InputStream in = ReplyPage.class.getResourceAsStream("/mintshelf/redline/" + name)) {
            return new String(Objects.requireNonNull(in, name).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String hash(String script) {
        try {
            return Base64.getEncoder()
                    .encodeToString(
                            MessageDigest.getInstance("SHA-256").digest(script.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * Writes the page. O(its parts).
     *
     * @param title in words: "TG40-3030 version 10"
     * @param sheet the drawing as SVG; empty where it is not to go out: then the marks stand on a blank sheet of its size
     * @param marks as SVG of the same size
     * @param annotations as {@link WebAnnotations#write} gives them
     */
    public static String write(String title, String sheet, String marks, String annotations) {
        Map<String, String> filled = Map.of(
                "POLICY", POLICY,
                "TITLE", text(title),
                "BARE", sheet.isEmpty() ? "bare" : "drawn",
                "SHEET", sheet,
                "MARKS", marks,
                // In JSON a "<" may be written so; no text in it can end the script then.
                "DATA", annotations.replace("<", "\\u003c"),
                "SCRIPT", SCRIPT);
        // What is filled in is not looked through again: no text of a remark is a place.
        return PLACE.matcher(PAGE)
                .replaceAll(m -> Matcher.quoteReplacement(filled.getOrDefault(m.group(1), m.group())));
    }

    private static String text(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
