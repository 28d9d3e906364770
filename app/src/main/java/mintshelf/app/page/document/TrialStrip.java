package mintshelf.app.page.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.page.Words;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.trial.ReadTrials.Beside;

/**
 * The thin strip of a trial under that of its document: it leaves the strip where it began, and comes back to it where it was
 * adopted.
 *
 * @param width of the drawing in its own units, as that of the strip above
 * @param path along which it runs
 * @param back whether it comes back to the strip
 * @param says what is tried, and how it stands
 * @param look by which it is drawn: open, adopted, dropped
 */
public record TrialStrip(
        int width,
        long trial,
        String path,
        boolean back,
        List<Stop> stops,
        int sayX,
        String line,
        String says,
        String look) {
    private static final int STEP = 46;
    private static final int NEAREST = 16;
    private static final int LEFT = 34;
    private static final int Y = 20;

    /** A version of the trial. */
    public record Stop(int x, int number, String initials, boolean last, String says) {}

    /**
     * @param places where the versions of the document stand on the strip above, by number; older ones than are drawn stand nowhere
     */
    public static TrialStrip of(Beside beside, int width, Map<Integer, Integer> places, Words words) {
        var line = beside.tried().line();
        var trial = beside.whole().trial();
        int begins = places.getOrDefault(line.fromNumber(), 4);
        int count = beside.versions().size();
        int back = line.adoptedAs().map(n -> places.getOrDefault(n, 0)).orElse(0);
        int step = STEP;
        if (back > begins) step = Math.max(NEAREST, Math.min(STEP, (back - begins - 30) / Math.max(1, count)));
        List<Stop> stops = new ArrayList<>();
        int x = begins + Math.min(LEFT, step);
        for (VersionRow v : beside.versions()) {
            stops.add(new Stop(
                    x,
                    v.number(),
                    words.initials(v.by()),
                    v.number() == count,
                    v.name().says() + ", " + v.by() + ", " + words.moment(v.at()) + ": "
                            + words.firstLine(v.comment())));
            x += step;
        }
        int end = stops.isEmpty() ? begins + LEFT : stops.get(stops.size() - 1).x();
        boolean returns = back > end;
        // From the stop above, past the trials that stand between.
        String path = "M" + begins + " -14 V" + (Y - 10) + " q0 10 10 10 H"
                + (returns ? back - 10 + " q10 0 10 -10 V2" : Integer.toString(end));
        return new TrialStrip(
                width,
                trial.id(),
                path,
                returns,
                stops,
                (returns ? back : end) + 14,
                trial.line(),
                trial.title() + says(beside, words),
                trial.state().name().toLowerCase(java.util.Locale.ROOT));
    }

    private static String says(Beside beside, Words words) {
        var trial = beside.whole().trial();
        var line = beside.tried().line();
        if (line.adoptedAs().isPresent())
            return " · adopted as version " + line.adoptedAs().get();
        if (!trial.isOpen())
            return " · " + trial.state().words() + " "
                    + trial.endedAt().map(words::shortly).orElse("");
        String held = line.holder().map(h -> " · held by " + h.name()).orElse("");
        return (line.begun() ? "" : " · nothing checked in yet") + held;
    }
}
