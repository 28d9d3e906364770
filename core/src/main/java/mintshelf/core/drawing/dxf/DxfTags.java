package mintshelf.core.drawing.dxf;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.SortedMap;
import mintshelf.core.base.Outcome;

/**
 * An ASCII exchange drawing as tags over its own bytes: a tag is a group code and the place of its value. Nothing is copied and
 * nothing is lost: what is not understood stays where it is.
 *
 * <p>Reading is O(bytes); line ends are CR LF, LF or CR and are found in bytes, for byte 0x85 sits inside characters of several
 * code pages.
 */
public final class DxfTags {
    private static final Map<String, String> CODE_PAGES = Map.ofEntries(
            Map.entry("ansi_874", "x-windows-874"),
            Map.entry("ansi_932", "windows-31j"),
            Map.entry("ansi_936", "GBK"),
            Map.entry("ansi_949", "x-windows-949"),
            Map.entry("ansi_950", "x-windows-950"),
            Map.entry("dos850", "IBM850"),
            Map.entry("dos437", "IBM437"),
            Map.entry("mac-roman", "x-MacRoman"));

    private final byte[] bytes;
    private final int[] codes;
    private final int[] starts;
    private final int[] ends;
    private final int size;
    private final Charset charset;
    private final String version;

    private DxfTags(byte[] bytes, int[] codes, int[] starts, int[] ends, int size) {
        this.bytes = bytes;
        this.codes = codes;
        this.starts = starts;
        this.ends = ends;
        this.size = size;
        this.version = headerValue("$ACADVER");
        this.charset = charsetOf(version, headerValue("$DWGCODEPAGE"));
    }

    /** Reads the tags; refuses what is not ASCII DXF, with the line at which it stops being it. */
    public static Outcome<DxfTags> read(byte[] bytes) {
        int room = Math.max(16, bytes.length / 12);
        int[] codes = new int[room];
        int[] starts = new int[room];
        int[] ends = new int[room];
        int size = 0;
        int at = bytes.length >= 3 && bytes[0] == (byte) 0xef && bytes[1] == (byte) 0xbb && bytes[2] == (byte) 0xbf
                ? 3
                : 0;
        int line = 1;
        while (at < bytes.length) {
            int codeEnd = lineEnd(bytes, at);
            int code = code(bytes, at, codeEnd);
            if (code == BLANK && onlyBlanksFrom(bytes, at)) break;
            if (code < -5 || code == BLANK) {
                return Outcome.refused("dxf.code", "Line " + line + " should hold a group code and does not.", "");
            }
            if (codeEnd >= bytes.length) {
                return Outcome.refused("dxf.cut", "The file ends in line " + line + ", after a group code.", "");
            }
            int valueStart = afterLine(bytes, codeEnd);
            int valueEnd = lineEnd(bytes, valueStart);
            if (size == codes.length) {
                codes = Arrays.copyOf(codes, size * 2);
                starts = Arrays.copyOf(starts, size * 2);
                ends = Arrays.copyOf(ends, size * 2);
            }
            codes[size] = code;
            starts[size] = valueStart;
            ends[size] = valueEnd;
            size++;
            line += 2;
            at = afterLine(bytes, valueEnd);
        }
        if (size < 2) return Outcome.refused("dxf.empty", "The file holds no drawing.", "");
        return Outcome.granted(new DxfTags(bytes, codes, starts, ends, size));
    }

    private static final int BLANK = Integer.MIN_VALUE;

    private static int code(byte[] bytes, int from, int end) {
        int i = from;
        while (i < end && bytes[i] <= ' ' && bytes[i] >= 0) i++;
        if (i == end) return BLANK;
        boolean negative = bytes[i] == '-';
        if (negative) i++;
        int n = 0;
        int digits = 0;
        while (i < end && bytes[i] >= '0' && bytes[i] <= '9' && digits < 5) {
            n = n * 10 + bytes[i++] - '0';
            digits++;
        }
        while (i < end && bytes[i] <= ' ' && bytes[i] >= 0) i++;
        if (digits == 0 || i < end || n > 1071) return Integer.MIN_VALUE + 1;
        return negative ? -n : n;
    }

    private static boolean onlyBlanksFrom(byte[] bytes, int from) {
        for (int i = from; i < bytes.length; i++) if (bytes[i] > ' ' || bytes[i] < 0) return bytes[i] == 0x1a;
        return true;
    }

    private static int lineEnd(byte[] bytes, int from) {
        int i = from;
        while (i < bytes.length && bytes[i] != '\n' && bytes[i] != '\r') i++;
        return i;
    }

    private static int afterLine(byte[] bytes, int end) {
        if (end >= bytes.length) return end;
        return bytes[end] == '\r' && end + 1 < bytes.length && bytes[end + 1] == '\n' ? end + 2 : end + 1;
    }

    public int size() {
        return size;
    }

    public int code(int tag) {
        return codes[tag];
    }

    /** The value as text in the file's code page, without the blanks around it. */
    public String value(int tag) {
        return new String(bytes, starts[tag], ends[tag] - starts[tag], charset).strip();
    }

    /**
     * The file with the values of some tags replaced and every other byte as it was. What the file's code page lacks is written as
     * \U+XXXX, as exchange drawings do; O(bytes).
     *
     * @param values one line of text for each tag
     */
    public byte[] with(SortedMap<Integer, String> values) {
        ByteArrayOutputStream out = new ByteArrayOutputStream(bytes.length + 64 * values.size());
        int at = 0;
        for (Map.Entry<Integer, String> value : values.entrySet()) {
            int tag = value.getKey();
            out.write(bytes, at, starts[tag] - at);
            out.writeBytes(encode(value.getValue()));
            at = ends[tag];
        }
        out.write(bytes, at, bytes.length - at);
        return out.toByteArray();
    }

    /** A text as a line of this file: signs that begin a code and characters that the code page lacks are escaped. */
    byte[] encode(String text) {
        CharsetEncoder encoder = charset.newEncoder();
        StringBuilder safe = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean pair = Character.isHighSurrogate(c) && i + 1 < text.length();
            boolean code = text.startsWith("%%", i) || text.startsWith("\\U+", i);
            if (pair && encoder.canEncode(text.substring(i, i + 2))) {
                safe.append(c).append(text.charAt(++i));
            } else if (c < ' ' || code || Character.isSurrogate(c) || !encoder.canEncode(c)) {
                safe.append(String.format(Locale.ROOT, "\\U+%04X", (int) c));
            } else {
                safe.append(c);
            }
        }
        return safe.toString().getBytes(charset);
    }

    /** Whether a tag of this file and one of another are the same to the byte. */
    public boolean sameAs(DxfTags other, int tag) {
        return codes[tag] == other.codes[tag]
                && Arrays.equals(bytes, starts[tag], ends[tag], other.bytes, other.starts[tag], other.ends[tag]);
    }

    /** Whether the value is exactly this ASCII word. */
    public boolean is(int tag, int code, String word) {
        if (codes[tag] != code) return false;
        int from = starts[tag];
        int end = ends[tag];
        while (from < end && bytes[from] == ' ') from++;
        while (end > from && bytes[end - 1] == ' ') end--;
        if (end - from != word.length()) return false;
        for (int i = 0; i < word.length(); i++) if (bytes[from + i] != word.charAt(i)) return false;
        return true;
    }

    /** The version as in $ACADVER, such as AC1015; empty where the header lacks it (R12 and before may). */
    public String version() {
        return version;
    }

    /** In which the values are read: UTF-8 from AC1021 on, the named code page before. */
    public Charset charset() {
        return charset;
    }

    private String headerValue(String variable) {
        for (int i = 0; i + 1 < Math.min(size, 4000); i++) {
            if (codes[i] == 9 && raw(i).equals(variable)) return raw(i + 1);
            if (is(i, 0, "ENDSEC")) break;
        }
        return "";
    }

    private String raw(int tag) {
        return new String(bytes, starts[tag], ends[tag] - starts[tag], StandardCharsets.ISO_8859_1).strip();
    }

    private static Charset charsetOf(String version, String codePage) {
        if (version.compareTo("AC1021") >= 0 && version.startsWith("AC")) return StandardCharsets.UTF_8;
        String page = codePage.toLowerCase(Locale.ROOT);
        String name = CODE_PAGES.getOrDefault(page, page.startsWith("ansi_") ? "windows-" + page.substring(5) : page);
        try {
            if (!name.isEmpty()) return Charset.forName(name);
        } catch (IllegalArgumentException e) {
            // A page that nobody knows: the most common one is the best guess.
        }
        return Charset.forName("windows-1252");
    }
}
