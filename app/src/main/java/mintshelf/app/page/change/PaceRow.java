package mintshelf.app.page.change;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import mintshelf.core.base.Numbers;
import mintshelf.core.change.Pace;

/**
 * How long papers stayed at a stage, with a bar for the median of each part of the time.
 *
 * @param says the bars in words, for who does not see them
 */
public record PaceRow(Pace pace, List<Bar> bars, String says) {
    private static final int HIGH = 26;
    private static final int STEP = 12;

    public record Bar(int x, int y, int high) {}

    static PaceRow of(Pace pace) {
        int most =
                pace.medians().stream().flatMapToInt(OptionalInt::stream).max().orElse(0);
        List<Bar> bars = new ArrayList<>();
        List<String> says = new ArrayList<>();
        for (int i = 0; i < pace.medians().size(); i++) {
            OptionalInt median = pace.medians().get(i);
            says.add(median.isPresent() ? Integer.toString(median.getAsInt()) : "none");
            if (median.isEmpty()) continue;
            int high = Math.max(2, HIGH * median.getAsInt() / Math.max(1, most));
            bars.add(new Bar(i * STEP, HIGH - high, high));
        }
        return new PaceRow(
                pace,
                bars,
                "medians of " + Numbers.count(bars.size(), "part", "parts") + ", in days: " + String.join(", ", says));
    }
}
