package mintshelf.core.drawing.dxf;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.base.Outcome;

/**
 * The bytes of an exchange drawing, ASCII or binary, with what its head says of how to read them. Nothing is copied. Opening is
 * O(bytes) where a text outside ASCII has to be looked for, else O(1).
 *
 * <p>Line ends are CR LF, LF or CR and are found in bytes, for byte 0x85 sits inside characters of several code pages.
 */
final class DxfSource {
    /** The published binary form begins with 22 bytes: a name of seven letters that we leave unread, and these. */
    private static final byte[] BINARY = " Binary DXF\r\n\u001a\0".getBytes(StandardCharsets.ISO_8859_1);

    private static final int NAME = 7;

    private static final Map<String, String> CODE_PAGES = Map.ofEntries(
            Map.entry("ansi_874", "x-windows-874"),
            Map.entry("ansi_932", "windows-31j"),
            Map.entry("ansi_936", "GBK"),
            Map.entry("ansi_949", "x-windows-949"),
            Map.entry("ansi_950", "x-windows-950"),
            Map.entry("ansi_1361", "x-Johab"),
            Map.entry("gb2312", "GBK"),
            Map.entry("johab", "x-Johab"),
            Map.entry("big5", "x-windows-950"),
            Map.entry("ascii", "windows-1252"),
            Map.entry("us-ascii", "windows-1252"),
            Map.entry("mac-roman", "x-MacRoman"),
            Map.entry("mac_roman", "x-MacRoman"),
            Map.entry("macintosh", "x-MacRoman"),
            Map.entry("koi8_r", "KOI8-R"));

    /** A value longer than this is shown cut; the bytes keep it whole. */
    static final int LONGEST = 1 << 16;

    final byte[] bytes;
    final boolean binary;
    /** Binary group codes take two bytes from release 13 on, one before. */
    final boolean wideCodes;
    /** Where the first tag begins. */
    final int begin;

    private String version = "";
    private Charset charset = StandardCharsets.US_ASCII;

    private DxfSource(byte[] bytes, boolean binary, boolean wideCodes, int begin) {
        this.bytes = bytes;
        this.binary = binary;
        this.wideCodes = wideCodes;
        this.begin = begin;
    }

    /** Opens the bytes; refuses what is no exchange drawing, with the line at which that shows. */
    static Outcome<DxfSource> open(byte[] bytes) {
        if (bytes.length == 0) return Outcome.refused("dxf.empty", "The file holds no drawing: it is empty.", "");
        boolean binary = holds(bytes, NAME, BINARY);
        int begin = binary
                ? NAME + BINARY.length
                : holds(bytes, 0, new byte[] {(byte) 0xef, (byte) 0xbb, (byte) 0xbf}) ? 3 : 0;
        boolean wide = binary && bytes.length > begin + 1 && bytes[begin + 1] == 0;
        DxfSource source = new DxfSource(bytes, binary, wide, begin);
        TagCursor tags = new TagCursor(source);
        if (!tags.next()) {
            return tags.cut
                    ? Outcome.refused("dxf.cut", "The file ends in line " + tags.line + ", after a group code.", "")
                    : tags.damaged ? noCode(tags.line) : Outcome.refused("dxf.empty", "The file holds no drawing.", "");
        }
        if (tags.code != 0 || tags.start >= tags.end || bytes[tags.start] < 'A' || bytes[tags.start] > 'Z') {
            return Outcome.refused(
                    "dxf.code",
                    (binary ? "The file" : "Line " + tags.line) + " does not begin a drawing as an exchange file does.",
                    "");
        }
        source.head();
        return Outcome.granted(source);
    }

    static <T> Outcome<T> noCode(int line) {
        return Outcome.refused("dxf.code", "Line " + line + " should hold a group code and does not.", "");
    }

    private static boolean holds(byte[] bytes, int at, byte[] part) {
        return bytes.length >= at + part.length && Arrays.equals(bytes, at, at + part.length, part, 0, part.length);
    }

    private void head() {
        TagCursor tags = new TagCursor(this);
        String page = "";
        String variable = "";
        for (int i = 0; i < 4000 && tags.next(); i++) {
            if (tags.code == 0 && tags.is("ENDSEC")) break;
            if (tags.code == 9) variable = ascii(tags.start, tags.end);
            else if (variable.equals("$ACADVER") && version.isEmpty()) version = ascii(tags.start, tags.end);
            else if (variable.equals("$DWGCODEPAGE") && page.isEmpty()) page = ascii(tags.start, tags.end);
        }
        Charset named = named(page);
        boolean unicode = version.startsWith("AC") && version.compareTo("AC1021") >= 0;
        int high = firstHigh();
        if (high < 0) {
            charset = unicode ? StandardCharsets.UTF_8 : named;
        } else {
            // What the head says is often not what the bytes are: text that is valid UTF-8 is never by chance of
            // another page.
            boolean utf8 = isUtf8(high);
            charset = utf8 && (unicode || named.newEncoder().maxBytesPerChar() == 1) ? StandardCharsets.UTF_8 : named;
        }
    }

    private static Charset named(String page) {
        String name = page.toLowerCase(Locale.ROOT);
        String java = CODE_PAGES.get(name);
        if (java == null) {
            if (name.startsWith("ansi_")) java = "windows-" + name.substring(5);
            else if (name.startsWith("dos")) java = "IBM" + name.substring(3);
            else if (name.startsWith("iso8859-")) java = "ISO-8859-" + name.substring(8);
            else java = name;
        }
        try {
            if (!java.isEmpty()) return Charset.forName(java);
        } catch (IllegalArgumentException e) {
            // A page that nobody knows: the most common one is the best guess.
        }
        return Charset.forName("windows-1252");
    }

    private int firstHigh() {
        if (binary) {
            // Numbers fill the high bytes too: only texts tell.
            TagCursor tags = new TagCursor(this);
            while (tags.next()) {
                if (tags.kind() != TagCursor.TEXT) continue;
                for (int i = tags.start; i < tags.end; i++) if (bytes[i] < 0) return i;
            }
            return -1;
        }
        for (int i = begin; i < bytes.length; i++) if (bytes[i] < 0) return i;
        return -1;
    }

    private boolean isUtf8(int from) {
        if (!binary) return isUtf8(from, bytes.length);
        TagCursor tags = new TagCursor(this);
        while (tags.next()) {
            if (tags.kind() == TagCursor.TEXT && !isUtf8(tags.start, tags.end)) return false;
        }
        return true;
    }

    private boolean isUtf8(int from, int end) {
        int i = from;
        while (i < end) {
            int b = bytes[i];
            if (b >= 0) {
                i++;
                continue;
            }
            int more = (b & 0xe0) == 0xc0 ? 1 : (b & 0xf0) == 0xe0 ? 2 : (b & 0xf8) == 0xf0 ? 3 : -1;
            // A file that was cut may end inside a character.
            if (more < 0 || (i + more >= end && end < bytes.length)) return false;
            for (int k = 1; k <= more && i + k < end; k++) if ((bytes[i + k] & 0xc0) != 0x80) return false;
            i += more + 1;
        }
        return true;
    }

    /** The version as in $ACADVER, such as AC1015; empty where the head lacks it (release 12 and before may). */
    String version() {
        return version;
    }

    /** In which texts are read. */
    Charset charset() {
        return charset;
    }

    String ascii(int from, int end) {
        int a = from;
        int b = Math.min(end, from + LONGEST);
        while (a < b && bytes[a] == ' ') a++;
        while (b > a && bytes[b - 1] == ' ') b--;
        return new String(bytes, a, b - a, StandardCharsets.ISO_8859_1);
    }

    /** A text in the file's code page, without the blanks around it; bytes that are none of its characters become a mark. */
    String text(int from, int end) {
        int b = Math.min(end, from + LONGEST);
        for (int i = from; i < b; i++) {
            if (bytes[i] < 0) return decoded(from, b).strip();
        }
        return new String(bytes, from, Math.max(0, b - from), StandardCharsets.ISO_8859_1).strip();
    }

    private String decoded(int from, int end) {
        try {
            return charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPLACE)
                    .decode(ByteBuffer.wrap(bytes, from, end - from))
                    .toString();
        } catch (CharacterCodingException e) {
            // A line in another page than the rest: better a readable guess than marks.
            return new String(
                    bytes,
                    from,
                    end - from,
                    charset.equals(StandardCharsets.UTF_8) ? Charset.forName("windows-1252") : charset);
        }
    }
}
