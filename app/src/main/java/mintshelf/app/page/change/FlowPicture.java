package mintshelf.app.page.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.base.Numbers;
import mintshelf.core.change.Flow;
import mintshelf.core.change.Flow.Week;

/**
 * How changes flow, week by week: above how many wait, below what entered and left.
 *
 * @param area below the line of those that wait
 * @param says all of it in words, for who does not see it
 */
public record FlowPicture(
        int width, String area, String line, List<Bar> bars, int waiting, int entered, int left, String says) {
    private static final int WIDE = 640;
    private static final int BEFORE = 24;
    private static final int FLOOR = 58;
    private static final int TOP = 6;
    private static final int FOOT = 102;
    private static final int BARS = 38;

    /** What entered and what left in a week. */
    public record Bar(double x, double wide, double inY, double inHigh, double outY, double outHigh) {}

    /** Nothing where nothing was ever asked for. */
    static Optional<FlowPicture> of(Flow flow) {
        List<Week> weeks = flow.weeks();
        if (flow.highest() == 0 && flow.busiest() == 0) return Optional.empty();
        double step = (WIDE - BEFORE) / (double) weeks.size();
        double wide = Math.max(1, Math.min(10, step / 2 - 2));
        StringBuilder line = new StringBuilder();
        List<Bar> bars = new ArrayList<>();
        for (int i = 0; i < weeks.size(); i++) {
            Week week = weeks.get(i);
            double x = BEFORE + step * (i + 0.5);
            double y = FLOOR - (FLOOR - TOP) * week.waiting() / (double) Math.max(1, flow.highest());
            line.append(i == 0 ? "M" : "L").append(at(x)).append(' ').append(at(y));
            double in = BARS * week.entered() / (double) Math.max(1, flow.busiest());
            double out = BARS * week.left() / (double) Math.max(1, flow.busiest());
            bars.add(new Bar(at(x - wide - 0.5), at(wide), at(FOOT - in), at(in), at(FOOT - out), at(out)));
        }
        Week last = weeks.get(weeks.size() - 1);
        double end = BEFORE + step * (weeks.size() - 0.5);
        String area = line + "L" + at(end) + " " + FLOOR + "L" + at(BEFORE + step / 2) + " " + FLOOR + "z";
        String says = Numbers.count(last.waiting(), "change waits", "changes wait") + " now, " + last.entered()
                + " entered and " + last.left() + " left this week; at most " + flow.highest() + " waited in "
                + weeks.size() + " weeks";
        return Optional.of(
                new FlowPicture(WIDE, area, line.toString(), bars, last.waiting(), last.entered(), last.left(), says));
    }

    private static double at(double place) {
        return Double.parseDouble(String.format(Locale.ROOT, "%.1f", place));
    }
}
