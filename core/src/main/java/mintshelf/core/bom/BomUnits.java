package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.Quantities;

/** Quantities of BOM lines and the units that they are in (ISO 80000-3 and -4; pieces are counted). */
public final class BomUnits {
    /** What is counted. */
    public static final String PIECE = "pc";

    /** The units that are offered, the usual one first. */
    public static final List<String> ALL = List.of(PIECE, "m", "mm", "m2", "g", "kg", "ml", "l");

    private static final Pattern QUANTITY = Pattern.compile("\\d{1,9}(\\.\\d{1,6})?");

    private static final Pattern RATE = Pattern.compile("\\d{1,8}(\\.\\d{1,9})?");

    private BomUnits() {}

    /** Reads a quantity: over nothing, at most nine digits before the point and six behind it. */
    public static Outcome<BigDecimal> quantity(String typed) {
        String text = typed.strip();
        if (!QUANTITY.matcher(text).matches() || new BigDecimal(text).signum() == 0) {
            return Outcome.refused(
                    "bom.quantity",
                    "“" + Texts.shorten(text, 40) + "” is no quantity.",
                    "Write digits, at most six of them behind a point, more than 0.");
        }
        return Outcome.granted(new BigDecimal(text).stripTrailingZeros());
    }

    /** Reads a mass or a cost of one unit; nothing for an empty text: nobody knows it. */
    public static Outcome<Optional<BigDecimal>> amount(String what, String typed) {
        String text = typed.strip();
        if (text.isEmpty()) return Outcome.granted(Optional.empty());
        if (QUANTITY.matcher(text).matches()) return Outcome.granted(Optional.of(new BigDecimal(text)));
        return Outcome.refused(
                "bom.amount",
                what + " “" + Texts.shorten(text, 40) + "” is no amount.",
                "Write digits, at most six of them behind a point, for one unit of it; leave it empty where nobody knows.");
    }

    /** Reads what one unit of a currency is in another: over nothing, at most eight digits before the point and nine behind it. */
    public static Outcome<BigDecimal> rate(String typed) {
        String text = typed.strip();
        if (RATE.matcher(text).matches() && new BigDecimal(text).signum() > 0)
            return Outcome.granted(new BigDecimal(text));
        return Outcome.refused(
                "rate.number",
                "“" + Texts.shorten(text, 20) + "” is no rate.",
                "Write what one of it is in the house's own currency, more than 0; nothing was changed.");
    }

    /** Reads a unit; an empty text is a piece. */
    public static Outcome<String> unit(String typed) {
        String text = typed.strip();
        if (text.isEmpty()) return Outcome.granted(PIECE);
        if (ALL.contains(text)) return Outcome.granted(text);
        return Outcome.refused(
                "bom.unit",
                "“" + Texts.shorten(text, 20) + "” is no unit here.",
                "Known: " + String.join(", ", ALL) + ".");
    }

    /** A quantity in another unit; nothing where they are not of one sort. */
    public static Optional<BigDecimal> in(BigDecimal quantity, String from, String to) {
        if (from.equals(to)) return Optional.of(quantity);
        return Quantities.convert(quantity, from, to).map(BigDecimal::new);
    }
}
