package mintshelf.core.drawing.dxf;

import java.nio.charset.StandardCharsets;

/** Reads numbers out of bytes without making strings of them. */
final class Numbers {
    private static final double[] TENS = new double[23];

    static {
        double ten = 1;
        for (int i = 0; i < TENS.length; i++, ten *= 10) TENS[i] = ten;
    }

    private Numbers() {}

    /**
     * A decimal number, to within the last place of a double; a comma counts as the decimal point. NaN for what is no number.
     */
    static double real(byte[] b, int from, int to) {
        int i = from;
        int end = to;
        while (i < end && (b[i] == ' ' || b[i] == '\t')) i++;
        while (end > i && (b[end - 1] == ' ' || b[end - 1] == '\t')) end--;
        if (i >= end) return Double.NaN;
        int first = i;
        boolean negative = b[i] == '-';
        if (negative || b[i] == '+') i++;
        long mantissa = 0;
        int digits = 0;
        int places = 0;
        boolean point = false;
        boolean any = false;
        for (; i < end; i++) {
            int c = b[i];
            if (c >= '0' && c <= '9') {
                any = true;
                if (digits >= 18) return slow(b, first, end);
                mantissa = mantissa * 10 + c - '0';
                if (mantissa > 0) digits++;
                if (point) places++;
            } else if ((c == '.' || c == ',') && !point) {
                point = true;
            } else {
                break;
            }
        }
        if (!any) return Double.NaN;
        if (i < end) return b[i] == 'e' || b[i] == 'E' || b[i] == 'd' || b[i] == 'D' ? slow(b, first, end) : Double.NaN;
        if (places >= TENS.length) return slow(b, first, end);
        double value = mantissa / TENS[places];
        return negative ? -value : value;
    }

    private static double slow(byte[] b, int from, int end) {
        if (end - from > 400) return Double.NaN;
        String text = new String(b, from, end - from, StandardCharsets.ISO_8859_1)
                .replace(',', '.')
                .replace('D', 'E')
                .replace('d', 'e');
        if (!Character.isDigit(text.charAt(text.length() - 1)) && !text.endsWith(".")) return Double.NaN;
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    /** A number to base 16; -1 for what is none. */
    static long hex(byte[] b, int from, int to) {
        long value = 0;
        int digits = 0;
        for (int i = from; i < to; i++) {
            if (b[i] == ' ') continue;
            int d = Character.digit(b[i], 16);
            if (d < 0 || ++digits > 16) return -1;
            value = (value << 4) | d;
        }
        return digits == 0 ? -1 : value;
    }

    static double realBinary(byte[] b, int at) {
        return Double.longBitsToDouble(whole(b, at, 8));
    }

    /** Little-endian, with its sign. */
    static long whole(byte[] b, int at, int size) {
        long value = 0;
        for (int i = size - 1; i >= 0; i--) value = (value << 8) | (b[at + i] & 255);
        int shift = 64 - 8 * size;
        return value << shift >> shift;
    }
}
