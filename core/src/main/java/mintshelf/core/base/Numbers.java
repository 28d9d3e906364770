package mintshelf.core.base;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;

/** Numbers and sizes in words that people read. */
public final class Numbers {
    private Numbers() {}

    /** Thousands set apart by a thin space (ISO 80000-1, 7.3.1). */
    public static String grouped(long n) {
        if (n >= 0 && n < 1000) return Long.toString(n);
        return String.format(Locale.ROOT, "%,d", n).replace(',', '\u2009');
    }

    /** "1 document", "3 documents". */
    public static String count(long n, String one, String many) {
        return grouped(n) + " " + (n == 1 ? one : many);
    }

    /** A number in plain decimals with twelve significant places and ten behind the point; empty for what is none, or has over twenty before it. */
    public static String plain(double n) {
        return Double.isFinite(n) ? plain(BigDecimal.valueOf(n)) : "";
    }

    /** As {@link #plain(double)}. */
    public static String plain(BigDecimal n) {
        BigDecimal rounded = n.round(new MathContext(12, RoundingMode.HALF_EVEN));
        if (rounded.precision() - rounded.scale() > 20) return "";
        BigDecimal kept = rounded.setScale(Math.min(10, Math.max(0, rounded.scale())), RoundingMode.HALF_EVEN);
        return kept.signum() == 0 ? "0" : kept.stripTrailingZeros().toPlainString();
    }

    /** A size in bytes with three significant places, in decimal units (IEC 80000-13). */
    public static String size(long bytes) {
        if (bytes < 1000) return count(bytes, "byte", "bytes");
        String[] units = {"kB", "MB", "GB", "TB"};
        double value = bytes / 1000.0;
        int unit = 0;
        while (value >= 999.5 && unit < units.length - 1) {
            value /= 1000;
            unit++;
        }
        String text =
                value < 10 ? String.format(Locale.ROOT, "%.1f", value) : String.format(Locale.ROOT, "%.0f", value);
        return text + " " + units[unit];
    }
}
