package mintshelf.app.use.mail;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Texts;

/**
 * A report that a mail of ours could not be delivered: a multipart/report (RFC 6522) of delivery status (RFC 3464), with the identification
 * that {@link SendMail} gave.
 *
 * @param person to whom it went
 * @param events of which it told; none where it told of more than its identification can name
 * @param says why, as the other side has it
 */
record Bounce(long person, List<Long> events, String says) {
    /** Letters of a report that are looked at. */
    static final int LOOKED_AT = 200_000;

    private static final Pattern OURS = Pattern.compile("<event-([0-9a-f-]{1,80})-to-(\\d{1,18})@");
    private static final Pattern FAILED = Pattern.compile("(?im)^Action:[ \\t]*failed");
    private static final Pattern WHY =
            Pattern.compile("(?im)^Diagnostic-Code:[ \\t]*(?:smtp;)?[ \\t]*(.{1,400}(?:\\r?\\n[ \\t].{1,400})*)");
    private static final Pattern STATUS = Pattern.compile("(?im)^Status:[ \\t]*(\\d\\.\\d{1,3}\\.\\d{1,3})");

    /**
     * Reads a report; nothing for what is none, for delays, and for mails of others.
     *
     * @param contentType of the whole message
     * @param text its letters, heads and all
     */
    static Optional<Bounce> read(String contentType, String text) {
        String type = contentType.toLowerCase(Locale.ROOT);
        if (!type.startsWith("multipart/report") || !type.contains("delivery-status")) return Optional.empty();
        String looked = text.length() > LOOKED_AT ? text.substring(0, LOOKED_AT) : text;
        Matcher ours = OURS.matcher(looked);
        if (!FAILED.matcher(looked).find() || !ours.find()) return Optional.empty();
        List<Long> events = new ArrayList<>();
        if (ours.group(1).matches("\\d{1,18}(-\\d{1,18})*")) {
            for (String event : ours.group(1).split("-")) events.add(Long.valueOf(event));
        }
        Matcher why = WHY.matcher(looked);
        Matcher status = STATUS.matcher(looked);
        String says = why.find() ? why.group(1) : status.find() ? "status " + status.group(1) : "without a reason";
        return Optional.of(new Bounce(Long.parseLong(ours.group(2)), events, Texts.shorten(Texts.line(says), 200)));
    }
}
