package mintshelf.app.page.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.app.page.Words;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.trial.ReadTrials.Beside;
import mintshelf.core.base.Texts;

/**
 * The thin strip of a trial under that of its document: it leaves the strip where it began, and comes back to it where it was
 * adopted.
 *
 * @param width of the drawing in its own units, as that of the strip above
 * @param path along which it runs
 * @param sayX where its words stand, {@code anchor} which end of them
 * @param says what is tried, and how it stands; {@code shown} as much of it as there is room for
 * @param look by which it is drawn: open, adopted, dropped
 */
public record TrialStrip(
        int width,
        long trial,
        String path,
        List<Stop> stops,
        int sayX,
        String anchor,
        String line,
        String says,
        String shown,
        String look) {
    /** Units that a letter takes. */
    private static final int LETTER = 7;

    private static final int STEP = 46;
    private static final int NEAREST = 16;
    private static final int LEFT = 34;
    /** Versions of one trial that are drawn: the latest ones. */
    private static final int MOST = 12;

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
        // Where there is no room behind it, its words stand before it.
        boolean late = begins > width - 420;
        int room = (late ? width - 20 : width - 300) - begins;
        int back = line.adoptedAs().map(n -> places.getOrDefault(n, 0)).orElse(0);
        if (back > begins) room = Math.min(room, back - begins - 30);
        int most = Math.max(1, Math.min(MOST, room / NEAREST - 1));
        List<VersionRow> drawn = beside.versions().subList(Math.max(0, count - most), count);
        int step = Math.max(NEAREST, Math.min(STEP, room / Math.max(1, drawn.size())));
        List<Stop> stops = new ArrayList<>();
        int x = begins + Math.min(LEFT, step);
        for (VersionRow v : drawn) {
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
        int sayX = late ? begins - 14 : (returns ? back : end) + 14;
        String says = says(beside, words);
        return new TrialStrip(
                width,
                trial.id(),
                path,
                stops,
                sayX,
                late ? "end" : "start",
                trial.line(),
                trial.title() + says,
                Texts.shorten(trial.title(), Math.max(12, (late ? sayX : width - sayX) / LETTER - 4 - says.length()))
                        + says,
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
