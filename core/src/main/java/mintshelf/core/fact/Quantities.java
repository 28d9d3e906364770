package mintshelf.core.fact;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Numbers;

/** Lengths, areas, volumes and masses from unit to unit (SI, ISO 80000-3 and -4; inch, foot and pound as defined by them). */
public final class Quantities {
    private static final Pattern UNIT = Pattern.compile("([A-Za-zµ]+)(?:\\^?([1-3²³]))?");

    private enum Dimension {
        LENGTH,
        MASS
    }

    private record Base(Dimension dimension, BigDecimal factor) {}

    private static final Map<String, Base> BASES = Map.ofEntries(
            base("m", Dimension.LENGTH, "1"),
            base("dm", Dimension.LENGTH, "0.1"),
            base("cm", Dimension.LENGTH, "0.01"),
            base("mm", Dimension.LENGTH, "0.001"),
            base("µm", Dimension.LENGTH, "0.000001"),
            base("km", Dimension.LENGTH, "1000"),
            base("in", Dimension.LENGTH, "0.0254"),
            base("ft", Dimension.LENGTH, "0.3048"),
            base("kg", Dimension.MASS, "1"),
            base("g", Dimension.MASS, "0.001"),
            base("mg", Dimension.MASS, "0.000001"),
            base("t", Dimension.MASS, "1000"),
            base("lb", Dimension.MASS, "0.45359237"),
            base("pound", Dimension.MASS, "0.45359237"));

    private record Unit(Dimension dimension, int power, BigDecimal factor) {}

    private Quantities() {}

    private static Map.Entry<String, Base> base(String symbol, Dimension dimension, String factor) {
        return Map.entry(symbol, new Base(dimension, new BigDecimal(factor)));
    }

    /** A quantity in another unit, in plain decimals; nothing where the units are not of one sort, or not known. */
    public static Optional<String> convert(BigDecimal value, String from, String to) {
        if (from.equals(to)) return text(value);
        Optional<Unit> of = unit(from);
        Optional<Unit> in = unit(to);
        if (of.isEmpty() || in.isEmpty()) return Optional.empty();
        if (of.get().dimension() != in.get().dimension()
                || of.get().power() != in.get().power()) return Optional.empty();
        return text(value.multiply(of.get().factor()).divide(in.get().factor(), MathContext.DECIMAL64));
    }

    private static Optional<String> text(BigDecimal value) {
        return Optional.of(Numbers.plain(value)).filter(t -> !t.isEmpty());
    }

    private static Optional<Unit> unit(String text) {
        // The litre is a name for the cubic decimetre (BIPM, The International System of Units, table 8).
        if (text.equals("l")) return unit("dm3");
        if (text.equals("ml")) return unit("cm3");
        Matcher m = UNIT.matcher(text);
        if (!m.matches()) return Optional.empty();
        Base base = BASES.get(m.group(1));
        if (base == null) return Optional.empty();
        int power = m.group(2) == null
                ? 1
                : "123".indexOf(m.group(2).replace('²', '2').replace('³', '3')) + 1;
        return Optional.of(new Unit(base.dimension(), power, base.factor().pow(power)));
    }
}
