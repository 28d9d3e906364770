package mintshelf.core.model.step;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Strings of the exchange structure (ISO 10303-21:2016, clause 6.4.3): quotes, pages, and escapes of one, two and four bytes. */
final class StepText {
    private StepText() {}

    /** What stands between the quotes, decoded; an escape that is none stays as it is. Line ends inside a string are none of it. */
    static String decode(byte[] bytes, int from, int to) {
        boolean plain = true;
        for (int i = from; i < to && plain; i++) {
            byte b = bytes[i];
            plain = b >= ' ' && b != '\\' && b != '\'';
        }
        if (plain) return new String(bytes, from, to - from, StandardCharsets.US_ASCII);
        return resolve(letters(bytes, from, to));
    }

    /** Bytes beyond ASCII are against the rules and common: UTF-8 where they are that, else the page of western Europe. */
    private static String letters(byte[] bytes, int from, int to) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, from, to - from))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
        }
    }

    private static String resolve(String raw) {
        StringBuilder out = new StringBuilder(raw.length());
        Charset page = StandardCharsets.ISO_8859_1;
        int i = 0;
        while (i < raw.length()) {
            char c = raw.charAt(i);
            if (c == '\'' && raw.startsWith("''", i)) {
                out.append('\'');
                i += 2;
            } else if (c == '\n' || c == '\r') {
                i++;
            } else if (c != '\\') {
                out.append(c);
                i++;
            } else if (raw.startsWith("\\\\", i)) {
                out.append('\\');
                i += 2;
            } else if (raw.startsWith("\\S\\", i) && i + 3 < raw.length()) {
                byte[] one = {(byte) (raw.charAt(i + 3) + 128)};
                out.append(new String(one, page));
                i += 4;
            } else if (raw.startsWith("\\P", i) && i + 3 < raw.length() && raw.charAt(i + 3) == '\\') {
                page = page(raw.charAt(i + 2), page);
                i += 4;
            } else if (raw.startsWith("\\X\\", i) && hex(raw, i + 3, 2) >= 0) {
                out.append((char) hex(raw, i + 3, 2));
                i += 5;
            } else if (raw.startsWith("\\X2\\", i) || raw.startsWith("\\X4\\", i)) {
                int end = wide(raw, i + 4, raw.charAt(i + 2) == '2' ? 4 : 8, out);
                if (end < 0) {
                    out.append(c);
                    i++;
                } else {
                    i = end;
                }
            } else {
                out.append(c);
                i++;
            }
        }
        return out.toString();
    }

    /** Reads characters of so many digits up to \X0\; gives where the string goes on, -1 where that is missing. */
    private static int wide(String raw, int from, int digits, StringBuilder out) {
        int end = raw.indexOf("\\X0\\", from);
        if (end < 0 || (end - from) % digits != 0) return -1;
        StringBuilder read = new StringBuilder();
        for (int i = from; i < end; i += digits) {
            long code = hex(raw, i, digits);
            if (code < 0 || code > Character.MAX_CODE_POINT) return -1;
            // Two bytes may be half a pair: what belongs together comes together.
            if (digits == 4) read.append((char) code);
            else read.appendCodePoint((int) code);
        }
        out.append(read);
        return end + 4;
    }

    private static long hex(String raw, int from, int digits) {
        if (from + digits > raw.length()) return -1;
        long value = 0;
        for (int i = from; i < from + digits; i++) {
            int digit = Character.digit(raw.charAt(i), 16);
            if (digit < 0) return -1;
            value = value * 16 + digit;
        }
        return value;
    }

    /** Pages A to I: ISO 8859-1 to -9. */
    private static Charset page(char letter, Charset otherwise) {
        String name = "ISO-8859-" + (letter - 'A' + 1);
        return letter >= 'A' && letter <= 'I' && Charset.isSupported(name) ? Charset.forName(name) : otherwise;
    }

    /** A text as a string of the exchange structure, in letters of ASCII only. */
    static String encode(String text) {
        StringBuilder out = new StringBuilder(text.length() + 8);
        boolean wide = false;
        for (int at = 0; at < text.length(); ) {
            int code = text.codePointAt(at);
            at += Character.charCount(code);
            boolean ascii = code >= 32 && code < 127;
            if (wide && ascii) out.append("\\X0\\");
            if (!wide && !ascii) out.append("\\X4\\");
            wide = !ascii;
            if (!ascii) out.append(String.format(Locale.ROOT, "%08X", code));
            else if (code == '\'') out.append("''");
            else if (code == '\\') out.append("\\\\");
            else out.append((char) code);
        }
        return wide ? out + "\\X0\\" : out.toString();
    }
}
