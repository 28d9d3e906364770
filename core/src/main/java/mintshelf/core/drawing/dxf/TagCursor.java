package mintshelf.core.drawing.dxf;

/**
 * Walks over the tags of an exchange drawing, one at a time: a group code and where its value lies. Comments (999) are passed
 * over. O(1) memory.
 */
final class TagCursor {
    static final int TEXT = 0;
    static final int REAL = 1;
    static final int SHORT = 2;
    static final int INT = 3;
    static final int LONG = 4;
    static final int BOOL = 5;
    static final int CHUNK = 6;

    private static final int BLANK = Integer.MIN_VALUE;
    private static final int NO_CODE = Integer.MIN_VALUE + 1;

    private final DxfSource source;
    private final byte[] bytes;
    private final boolean binary;

    /** The tag that was read: its code and the place of its value. */
    int code;

    int start;
    int end;
    /** Where the next tag begins. */
    int at;
    /** Where this tag begins. */
    int begin;
    /** The line of the code, counted from 1; of binary files the count of tags. */
    int line = 1;
    /** The end was reached after a code without its value, or inside a value. */
    boolean cut;
    /** A line that should hold a code does not. */
    boolean damaged;

    private int nextLine = 1;

    TagCursor(DxfSource source) {
        this(source, source.begin, 1);
    }

    TagCursor(DxfSource source, int at, int line) {
        this.source = source;
        this.bytes = source.bytes;
        this.binary = source.binary;
        this.at = at;
        this.nextLine = line;
    }

    /** Reads the next tag; false at the end, where the file is cut, and where it is damaged. */
    boolean next() {
        do {
            if (!(binary ? nextBinary() : nextAscii())) return false;
        } while (code == 999);
        return true;
    }

    private boolean nextAscii() {
        byte[] b = bytes;
        int n = b.length;
        int i = at;
        if (i >= n) return false;
        begin = i;
        line = nextLine;
        // Nearly all codes are two blanks and a digit, or less: read without looking for the line's end first.
        int value = 0;
        int digits = 0;
        while (i < n && (b[i] == ' ' || b[i] == '\t')) i++;
        while (i < n && b[i] >= '0' && b[i] <= '9' && digits < 5) {
            value = value * 10 + b[i++] - '0';
            digits++;
        }
        if (digits == 0 || i >= n || (b[i] != '\r' && b[i] != '\n')) {
            int lineEnd = lineEnd(begin);
            value = code(begin, lineEnd);
            if (value == BLANK && onlyBlanksFrom(begin)) {
                at = n;
                return false;
            }
            if (value == NO_CODE || value == BLANK) {
                damaged = true;
                return false;
            }
            i = lineEnd;
        }
        if (value > 1071) {
            damaged = true;
            return false;
        }
        if (i >= n) {
            cut = true;
            at = n;
            return false;
        }
        i += b[i] == '\r' && i + 1 < n && b[i + 1] == '\n' ? 2 : 1;
        int from = i;
        while (i < n && b[i] != '\n' && b[i] != '\r') i++;
        code = value;
        start = from;
        end = i;
        at = i >= n ? n : b[i] == '\r' && i + 1 < n && b[i + 1] == '\n' ? i + 2 : i + 1;
        nextLine = line + 2;
        return true;
    }

    private int lineEnd(int from) {
        int i = from;
        while (i < bytes.length && bytes[i] != '\n' && bytes[i] != '\r') i++;
        return i;
    }

    private int code(int from, int end) {
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
        if (digits == 0 || i < end || n > 1071 || (negative && n > 5)) return NO_CODE;
        return negative ? -n : n;
    }

    private boolean onlyBlanksFrom(int from) {
        for (int i = from; i < bytes.length; i++) if (bytes[i] > ' ' || bytes[i] < 0) return bytes[i] == 0x1a;
        return true;
    }

    /** After damage: goes on at the next line that begins an entity or ends a section; false when there is none. */
    boolean resume() {
        damaged = false;
        int i = binary ? bytes.length : begin;
        int l = line;
        while (i < bytes.length) {
            int e = lineEnd(i);
            int after = e >= bytes.length
                    ? e
                    : bytes[e] == '\r' && e + 1 < bytes.length && bytes[e + 1] == '\n' ? e + 2 : e + 1;
            if (i > begin && code(i, e) == 0 && after < bytes.length && bytes[after] >= 'A' && bytes[after] <= 'Z') {
                at = i;
                nextLine = l;
                return true;
            }
            i = after;
            l++;
        }
        at = bytes.length;
        return false;
    }

    private boolean nextBinary() {
        int i = at;
        begin = i;
        line = nextLine;
        if (i >= bytes.length) return false;
        int value = bytes[i] & 255;
        if (source.wideCodes) {
            if (i + 1 >= bytes.length) return cut();
            value = (short) (value | (bytes[i + 1] << 8));
            i += 2;
        } else if (value == 255) {
            if (i + 2 >= bytes.length) return cut();
            value = (bytes[i + 1] & 255) | ((bytes[i + 2] & 255) << 8);
            i += 3;
        } else {
            i++;
        }
        if (value < -5 || value > 1071) {
            damaged = true;
            return false;
        }
        code = value;
        start = i;
        switch (kind()) {
            case TEXT -> {
                while (i < bytes.length && bytes[i] != 0) i++;
                end = i;
                i++;
            }
            case REAL, LONG -> end = i += 8;
            case INT -> end = i += 4;
            case SHORT -> end = i += 2;
            case BOOL -> end = ++i;
            default -> {
                if (i >= bytes.length) return cut();
                start = i + 1;
                end = i = i + 1 + (bytes[i] & 255);
            }
        }
        if (end > bytes.length || i > bytes.length) return cut();
        at = i;
        nextLine = line + 1;
        return true;
    }

    private boolean cut() {
        cut = true;
        at = bytes.length;
        return false;
    }

    /** What kind of value the code announces in a binary file. */
    int kind() {
        return kind(code);
    }

    static int kind(int c) {
        if (c < 10) return TEXT;
        if (c < 60) return REAL;
        if (c < 80) return SHORT;
        if (c < 100) return INT;
        if (c < 110) return TEXT;
        if (c < 150) return REAL;
        if (c < 170) return LONG;
        if (c < 180) return SHORT;
        if (c < 210) return SHORT;
        if (c < 240) return REAL;
        if (c < 290) return SHORT;
        if (c < 300) return BOOL;
        if (c < 310) return TEXT;
        if (c < 320) return CHUNK;
        if (c < 370) return TEXT;
        if (c < 390) return SHORT;
        if (c < 400) return TEXT;
        if (c < 410) return SHORT;
        if (c < 420) return TEXT;
        if (c < 430) return INT;
        if (c < 440) return TEXT;
        if (c < 460) return INT;
        if (c < 470) return REAL;
        if (c < 1004) return TEXT;
        if (c == 1004) return CHUNK;
        if (c < 1010) return TEXT;
        if (c < 1060) return REAL;
        if (c < 1071) return SHORT;
        return INT;
    }

    /** Whether the value is exactly this ASCII word. */
    boolean is(String word) {
        int from = start;
        int to = end;
        while (from < to && bytes[from] == ' ') from++;
        while (to > from && bytes[to - 1] == ' ') to--;
        if (to - from != word.length()) return false;
        for (int i = 0; i < word.length(); i++) if (bytes[from + i] != word.charAt(i)) return false;
        return true;
    }
}
