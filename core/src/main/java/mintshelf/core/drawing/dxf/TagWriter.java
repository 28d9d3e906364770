package mintshelf.core.drawing.dxf;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * Writes tags as a drawing's own file writes them: ASCII with its line ends, or binary with codes of one or two bytes; texts in
 * its code page.
 */
final class TagWriter {
    private final DxfSource source;
    private final byte[] lineEnd;
    private final CharsetEncoder encoder;
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    TagWriter(DxfSource source) {
        this.source = source;
        this.lineEnd = lineEnd(source);
        this.encoder = source.charset().newEncoder();
    }

    private static byte[] lineEnd(DxfSource source) {
        for (int i = source.begin; i < source.bytes.length && !source.binary; i++) {
            if (source.bytes[i] == '\n') return new byte[] {'\n'};
            if (source.bytes[i] != '\r') continue;
            boolean both = i + 1 < source.bytes.length && source.bytes[i + 1] == '\n';
            return both ? new byte[] {'\r', '\n'} : new byte[] {'\r'};
        }
        return new byte[] {'\r', '\n'};
    }

    /** A text, with what the code page lacks escaped. */
    TagWriter text(int code, String value) {
        return raw(code, encode(value));
    }

    TagWriter whole(int code, int value) {
        if (!source.binary) return raw(code, Integer.toString(value).getBytes(StandardCharsets.US_ASCII));
        code(code);
        int bytes = TagCursor.kind(code) == TagCursor.INT ? 4 : 2;
        for (int i = 0; i < bytes; i++) out.write(value >> (8 * i));
        return this;
    }

    /** A length or an angle, to a millionth. */
    TagWriter real(int code, double value) {
        if (!source.binary) return raw(code, number(value).getBytes(StandardCharsets.US_ASCII));
        code(code);
        out.writeBytes(ByteBuffer.allocate(8)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putDouble(value)
                .array());
        return this;
    }

    TagWriter handle(int code, long value) {
        return text(code, Long.toHexString(value).toUpperCase(Locale.ROOT));
    }

    /** A point on the sheet: codes 10, 20, 30 for {@code code} 10. */
    TagWriter point(int code, double x, double y) {
        return real(code, x).real(code + 10, y).real(code + 20, 0);
    }

    /** Tags as they stand in the file. */
    TagWriter copy(int from, int to) {
        out.write(source.bytes, from, to - from);
        return this;
    }

    /** Whole tags. */
    TagWriter bytes(byte[] tags) {
        out.writeBytes(tags);
        return this;
    }

    /** A tag with its value as bytes. */
    private TagWriter raw(int code, byte[] value) {
        code(code);
        out.writeBytes(value);
        if (source.binary) out.write(0);
        else out.writeBytes(lineEnd);
        return this;
    }

    private void code(int code) {
        if (!source.binary) {
            out.writeBytes(String.format(Locale.ROOT, "%3d", code).getBytes(StandardCharsets.US_ASCII));
            out.writeBytes(lineEnd);
        } else if (source.wideCodes) {
            out.write(code);
            out.write(code >> 8);
        } else if (code < 255) {
            out.write(code);
        } else {
            out.write(255);
            out.write(code);
            out.write(code >> 8);
        }
    }

    static String number(double value) {
        String text = String.format(Locale.ROOT, "%.6f", value);
        return text.replaceAll("0+$", "").replaceAll("\\.$", ".0");
    }

    /** A text as a value of this file: signs that begin a code and characters that the code page lacks are escaped. */
    byte[] encode(String text) {
        StringBuilder safe = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean pair = Character.isHighSurrogate(c) && i + 1 < text.length();
            boolean code = text.startsWith("%%", i) || text.startsWith("\\U+", i) || text.startsWith("\\M+", i);
            if (pair && encoder.canEncode(text.substring(i, i + 2))) {
                safe.append(c).append(text.charAt(++i));
            } else if (c < ' ' || code || Character.isSurrogate(c) || !encoder.canEncode(c)) {
                safe.append(String.format(Locale.ROOT, "\\U+%04X", (int) c));
            } else {
                safe.append(c);
            }
        }
        return safe.toString().getBytes(source.charset());
    }

    byte[] bytes() {
        return out.toByteArray();
    }
}
