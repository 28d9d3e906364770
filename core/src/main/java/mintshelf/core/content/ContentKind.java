package mintshelf.core.content;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** What bytes are, told from the bytes themselves and never from a name. */
public enum ContentKind {
    DXF("DXF drawing", "image/vnd.dxf"),
    STEP("STEP model", "model/step"),
    PDF("PDF", "application/pdf"),
    PNG("PNG picture", "image/png"),
    JPEG("JPEG picture", "image/jpeg"),
    GIF("GIF picture", "image/gif"),
    TIFF("TIFF picture", "image/tiff"),
    SVG("SVG picture", "image/svg+xml"),
    ZIP("ZIP archive", "application/zip"),
    OFFICE("office document", "application/octet-stream"),
    TEXT("text", "text/plain"),
    EMPTY("empty file", "application/octet-stream"),
    OTHER("file", "application/octet-stream");

    private final String words;
    private final String mediaType;

    ContentKind(String words, String mediaType) {
        this.words = words;
        this.mediaType = mediaType;
    }

    /** How many first bytes {@link #of} wants at the most. */
    public static final int SAMPLE = 4096;

    public String words() {
        return words;
    }

    /** IANA media type. */
    public String mediaType() {
        return mediaType;
    }

    /** Whether a browser can show it as an image. */
    public boolean isPicture() {
        return this == PNG || this == JPEG || this == GIF || this == SVG;
    }

    /**
     * Tells the kind from the first bytes (up to {@link #SAMPLE}). An SVG or DXF that does not begin like one is text; what holds
     * NUL bytes is not text.
     */
    public static ContentKind of(byte[] head) {
        if (head.length == 0) return EMPTY;
        if (starts(head, 0x89, 'P', 'N', 'G', 0x0d, 0x0a)) return PNG;
        if (starts(head, 0xff, 0xd8, 0xff)) return JPEG;
        if (starts(head, 'G', 'I', 'F', '8')) return GIF;
        if (starts(head, 'I', 'I', 0x2a, 0) || starts(head, 'M', 'M', 0, 0x2a)) return TIFF;
        if (starts(head, '%', 'P', 'D', 'F', '-')) return PDF;
        String text = new String(head, 0, Math.min(head.length, SAMPLE), StandardCharsets.ISO_8859_1);
        if (text.startsWith(" Binary DXF\r\n\u001a", 7)) return DXF; // the end of the format's 22-byte mark
        if (starts(head, 'P', 'K', 3, 4)) {
            return text.contains("[Content_Types].xml") || text.contains("mimetypeapplication/vnd.oasis")
                    ? OFFICE
                    : ZIP;
        }
        if (starts(head, 0xd0, 0xcf, 0x11, 0xe0)) return OFFICE;
        if (text.indexOf('\0') >= 0) return OTHER;
        String start = text.startsWith("\u00ef\u00bb\u00bf") ? text.substring(3) : text;
        if (start.stripLeading().startsWith("ISO-10303-21;")) return STEP;
        if (looksLikeDxf(start)) return DXF;
        String lower = start.stripLeading().toLowerCase(Locale.ROOT);
        if (lower.startsWith("<svg") || (lower.startsWith("<?xml") && lower.contains("<svg"))) return SVG;
        return TEXT;
    }

    private static boolean looksLikeDxf(String text) {
        String[] lines = text.split("\r\n|\r|\n", 40);
        for (int i = 0; i + 1 < lines.length; i += 2) {
            String code = lines[i].strip();
            String value = lines[i + 1].strip();
            if (code.equals("999")) continue; // a comment before the first section
            return code.equals("0") && value.equals("SECTION");
        }
        return false;
    }

    private static boolean starts(byte[] head, int... mark) {
        if (head.length < mark.length) return false;
        for (int i = 0; i < mark.length; i++) if ((head[i] & 0xff) != mark[i]) return false;
        return true;
    }
}
