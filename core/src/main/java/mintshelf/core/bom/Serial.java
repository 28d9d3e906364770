package mintshelf.core.bom;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * The serial number of one product: digits, perhaps behind letters that tell one series from another. Those of one series stand in a
 * row; those of different ones do not.
 *
 * @param series letters in front, in capitals, without a dash behind them; empty for none
 * @param number what the digits come to
 * @param shown as it was written
 */
public record Serial(String series, long number, String shown) {
    private static final Pattern FORM = Pattern.compile("([A-Z]{1,6}-?)?(\\d{1,12})");

    /** Reads what somebody typed. */
    public static Outcome<Serial> read(String typed) {
        String text = typed.strip().toUpperCase(Locale.ROOT);
        Matcher m = FORM.matcher(text);
        if (!m.matches())
            return Outcome.refused(
                    "bom.serial",
                    "“" + Texts.shorten(typed.strip(), 30) + "” is no serial number.",
                    "Write up to twelve digits, with up to six letters in front where series are told apart.");
        return Outcome.granted(new Serial(
                Optional.ofNullable(m.group(1)).orElse("").replace("-", ""), Long.parseLong(m.group(2)), text));
    }

    /** Whether both are of one series. */
    public boolean isOfOneSeriesWith(Serial other) {
        return series.equals(other.series);
    }
}
