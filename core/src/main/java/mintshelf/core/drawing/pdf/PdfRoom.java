package mintshelf.core.drawing.pdf;

import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * How much room a PDF that somebody brought would take unpacked, told before it is opened: a few bytes can stand for very many. What is
 * packed twice, or as no usual program packs, is not modest. O(bytes and what they unpack to, up to the limit).
 */
final class PdfRoom {
    private static final long MOST = 96L << 20;
    private static final Pattern STREAM = Pattern.compile("stream\\r?\\n");
    /** More than one filter, one with a written-out letter, or one that packs as densely and is no longer in use. */
    private static final Pattern ODD =
            Pattern.compile("/F(?:ilter)?\\s*(?:\\[\\s*/[^\\]\\s/]+\\s*/|\\[?\\s*/[^\\s/\\]>]*#|\\[?\\s*/LZW)");

    private PdfRoom() {}

    static boolean isModest(byte[] pdf) {
        String text = new String(pdf, StandardCharsets.ISO_8859_1);
        if (ODD.matcher(text).find()) return false;
        long all = 0;
        byte[] out = new byte[1 << 16];
        Matcher streams = STREAM.matcher(text);
        while (streams.find()) {
            Inflater inflater = new Inflater();
            try {
                inflater.setInput(pdf, streams.end(), pdf.length - streams.end());
                int n = 1;
                while (n > 0) {
                    n = inflater.inflate(out);
                    all += n;
                    if (all > MOST) return false;
                }
            } catch (DataFormatException e) {
                // Not packed so: it takes no more room than it has.
            } finally {
                inflater.end();
            }
        }
        return true;
    }
}
