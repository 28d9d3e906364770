package mintshelf.core.drawing.titleblock;

import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Scales of drawings (ISO 5455:1979): enlargements, full size, reductions of 1, 2 and 5 times powers of ten. */
public final class SheetScale {
    private static final Pattern RATIO =
            Pattern.compile("\\s*(\\d{1,6}(?:[.,]\\d+)?)\\s*[:/]\\s*(\\d{1,6}(?:[.,]\\d+)?)\\s*");

    private SheetScale() {}

    /** How many millimetres of the sheet draw one of the thing: 0.5 for 1:2. Nothing for what is no ratio. */
    public static OptionalDouble of(String text) {
        Matcher ratio = RATIO.matcher(text);
        if (!ratio.matches()) return OptionalDouble.empty();
        double a = Double.parseDouble(ratio.group(1).replace(',', '.'));
        double b = Double.parseDouble(ratio.group(2).replace(',', '.'));
        return a > 0 && b > 0 ? OptionalDouble.of(a / b) : OptionalDouble.empty();
    }

    /** Whether the standard recommends it: 1:1, 2:1, 5:1, 10:1 … and 1:2, 1:5, 1:10 … to 1:10000. */
    public static boolean isRecommended(double scale) {
        double large = scale >= 1 ? scale : 1 / scale;
        if (large > 10_000.5) return false;
        while (large >= 9.999) large /= 10;
        for (double step : new double[] {1, 2, 5}) if (Math.abs(large - step) < 1e-6) return true;
        return false;
    }
}
