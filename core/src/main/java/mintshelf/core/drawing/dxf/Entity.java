package mintshelf.core.drawing.dxf;

import java.util.Arrays;

/**
 * The tags of one entity, from its type up to the next one: a buffer that is filled again for each entity. A missing value has a
 * default; one that cannot be read makes the entity {@link #isUnreadable()}.
 */
final class Entity {
    private final DxfSource source;
    private final Names names;
    private int[] codes = new int[64];
    private int[] starts = new int[64];
    private int[] ends = new int[64];
    private int size;
    private String type = "";
    /** The line on which it begins, counted from 1. */
    int line;
    /** Where it begins in the file, and where the next one does. */
    int begin;

    int after;
    private boolean unreadable;

    Entity(DxfSource source, Names names) {
        this.source = source;
        this.names = names;
    }

    /**
     * Fills itself from the cursor, which stands behind a tag of code 0, and leaves it behind the next one.
     *
     * @return whether another entity follows
     */
    boolean fill(TagCursor tags) {
        size = 0;
        unreadable = false;
        type = names.of(tags.start, tags.end);
        line = tags.line;
        begin = tags.begin;
        while (tags.next()) {
            if (tags.code == 0) {
                after = tags.begin;
                return true;
            }
            if (size == codes.length) {
                codes = Arrays.copyOf(codes, size * 2);
                starts = Arrays.copyOf(starts, size * 2);
                ends = Arrays.copyOf(ends, size * 2);
            }
            codes[size] = tags.code;
            starts[size] = tags.start;
            ends[size++] = tags.end;
        }
        after = tags.at;
        return false;
    }

    String type() {
        return type;
    }

    int size() {
        return size;
    }

    int code(int tag) {
        return codes[tag];
    }

    int start(int tag) {
        return starts[tag];
    }

    int end(int tag) {
        return ends[tag];
    }

    /** Whether a value that was asked for is no number, or none that can be drawn. */
    boolean isUnreadable() {
        return unreadable;
    }

    int find(int code) {
        return find(code, 0);
    }

    int find(int code, int from) {
        for (int i = from; i < size; i++) if (codes[i] == code) return i;
        return -1;
    }

    boolean has(int code) {
        return find(code) >= 0;
    }

    /** Whether it says anything of its colour, line type, its scale, or line width itself. */
    boolean hasStyle() {
        for (int i = 0; i < size; i++) {
            int code = codes[i];
            if (code == 62 || code == 6 || code == 370 || code == 420 || code == 48) return true;
        }
        return false;
    }

    String text(int code, String otherwise) {
        int at = find(code);
        return at < 0 ? otherwise : text(at);
    }

    String text(int tag) {
        if (!source.binary || TagCursor.kind(codes[tag]) == TagCursor.TEXT) return source.text(starts[tag], ends[tag]);
        double n = raw(tag);
        return n == Math.rint(n) ? Long.toString((long) n) : Double.toString(n);
    }

    /** A text with the blanks that it begins and ends with. */
    String line(int code) {
        int at = find(code);
        return at < 0 ? "" : raw(starts[at], ends[at]);
    }

    /** A text that comes up often, such as a layer's name. */
    String name(int code, String otherwise) {
        int at = find(code);
        return at < 0 ? otherwise : names.of(starts[at], ends[at]);
    }

    /** All values of a code up to a tag, one after the other. */
    String joined(int code) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < size && out.length() < DxfSource.LONGEST; i++) {
            // Blanks between the parts of a long text are part of it.
            if (codes[i] == code) out.append(raw(starts[i], ends[i]));
        }
        return out.toString();
    }

    private String raw(int from, int end) {
        int limit = Math.min(end, from + DxfSource.LONGEST);
        String text = source.text(from, limit);
        int lead = 0;
        while (from + lead < limit && source.bytes[from + lead] == ' ') lead++;
        int trail = 0;
        while (limit - trail > from + lead && source.bytes[limit - trail - 1] == ' ') trail++;
        return " ".repeat(Math.min(lead, 64)) + text + " ".repeat(Math.min(trail, 64));
    }

    /** A tag's number, as it stands; NaN for what is none. */
    double raw(int tag) {
        int from = starts[tag];
        if (!source.binary) return Numbers.real(source.bytes, from, ends[tag]);
        return switch (TagCursor.kind(codes[tag])) {
            case TagCursor.REAL -> Numbers.realBinary(source.bytes, from);
            case TagCursor.SHORT -> Numbers.whole(source.bytes, from, 2);
            case TagCursor.INT -> Numbers.whole(source.bytes, from, 4);
            case TagCursor.LONG -> Numbers.whole(source.bytes, from, 8);
            case TagCursor.BOOL -> source.bytes[from];
            default -> Numbers.real(source.bytes, from, ends[tag]);
        };
    }

    /** A tag's number. What is none, infinite or beyond any drawing counts as unreadable. */
    double real(int tag) {
        double n = raw(tag);
        if (Math.abs(n) <= 1e15) return n;
        unreadable = true;
        return 0;
    }

    double real(int code, double otherwise) {
        int at = find(code);
        return at < 0 ? otherwise : real(at);
    }

    int whole(int code, int otherwise) {
        int at = find(code);
        if (at < 0) return otherwise;
        double n = raw(at);
        return Math.abs(n) <= 2e9 ? (int) n : otherwise;
    }

    int wholeAt(int tag) {
        double n = raw(tag);
        return Math.abs(n) <= 2e9 ? (int) n : 0;
    }

    /** A handle; 0 where there is none. */
    long handle(int code) {
        int at = find(code);
        return at < 0 ? 0 : handleAt(at);
    }

    long handleAt(int tag) {
        return Math.max(0, Numbers.hex(source.bytes, starts[tag], ends[tag]));
    }

    double[] all(int code) {
        double[] numbers = new double[8];
        int n = 0;
        for (int i = 0; i < size; i++) {
            if (codes[i] != code) continue;
            if (n == numbers.length) numbers = Arrays.copyOf(numbers, n * 2);
            numbers[n++] = real(i);
        }
        return Arrays.copyOf(numbers, n);
    }

    /** The extrusion direction (210, 220, 230), upwards where none stands. */
    double[] normal() {
        int at = find(210);
        if (at < 0) return UP;
        double[] n = {real(at), real(220, 0), real(230, 1)};
        double length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        if (length < 1e-12) return UP;
        for (int i = 0; i < 3; i++) n[i] /= length;
        return n;
    }

    static final double[] UP = {0, 0, 1};

    boolean is(int tag, String word) {
        int from = starts[tag];
        if (ends[tag] - from < word.length()) return false;
        return source.ascii(from, ends[tag]).equals(word);
    }
}
