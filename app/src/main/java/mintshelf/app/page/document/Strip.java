package mintshelf.app.page.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.app.page.RevisionLook;
import mintshelf.app.page.Words;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.document.ReadFacts;

/**
 * The picture of a document's revisions and versions along a line: where each mark stands. At most {@link #MOST} versions are
 * drawn; of older ones the strip says how many there are.
 *
 * @param width of the drawing in its own units
 * @param earlier number of versions left out at the left
 */
public record Strip(int width, List<Bar> bars, List<Stop> stops, List<Arc> arcs, List<Mark> marks, int earlier) {
    static final int WIDTH = 1236;
    static final int MOST = 24;
    private static final int LEFT = 34;

    /** A revision: from its first to its last version. */
    public record Bar(int x, int width, String label, String says, String look) {}

    /** A version. */
    public record Stop(
            int x, int number, String initials, boolean head, boolean picked, boolean released, String says) {}

    /** From a version to the one that is its copy. */
    public record Arc(String path) {}

    /** A change of the title or of facts, which made no version: where it stands between two. */
    public record Mark(int x, String says) {}

    static Strip of(
            List<RevisionRow> revisions,
            List<VersionRow> versions,
            List<ReadFacts.Typed> typed,
            int head,
            int picked,
            Words words) {
        int from = Math.max(0, versions.size() - MOST);
        List<VersionRow> shown = versions.subList(from, versions.size());
        int step = Math.min(110, (WIDTH - 2 * LEFT - 120) / Math.max(1, shown.size()));
        List<Stop> stops = new ArrayList<>();
        for (int i = 0; i < shown.size(); i++) {
            VersionRow v = shown.get(i);
            boolean released = revisions.stream()
                    .anyMatch(r ->
                            r.releasedVersion().filter(n -> n == v.number()).isPresent());
            stops.add(new Stop(
                    LEFT + 30 + i * step,
                    v.number(),
                    words.initials(v.by()),
                    v.number() == head,
                    v.number() == picked,
                    released,
                    "Version " + v.number() + ", " + v.by() + ", " + words.moment(v.at()) + ": "
                            + words.firstLine(v.comment())));
        }
        return new Strip(
                WIDTH,
                bars(revisions, shown, stops, step, words),
                stops,
                arcs(shown, stops),
                marks(shown, stops, typed, step, words),
                from);
    }

    /** Behind the version that was the latest then; those of one gap share one mark, which says them all. */
    private static List<Mark> marks(
            List<VersionRow> shown, List<Stop> stops, List<ReadFacts.Typed> typed, int step, Words words) {
        Map<Integer, List<String>> says = new TreeMap<>();
        for (int i = typed.size() - 1; i >= 0; i--) {
            ReadFacts.Typed one = typed.get(i);
            int at = -1;
            while (at + 1 < shown.size() && !shown.get(at + 1).at().isAfter(one.at())) at++;
            if (at < 0) continue;
            says.computeIfAbsent(at, k -> new ArrayList<>())
                    .add(one.by() + " " + words.moment(one.at()) + ": " + one.says());
        }
        List<Mark> marks = new ArrayList<>();
        says.forEach((at, lines) ->
                marks.add(new Mark(stops.get(at).x() + Math.min(step / 2, 40), String.join("\n", lines))));
        return marks;
    }

    private static List<Bar> bars(
            List<RevisionRow> revisions, List<VersionRow> shown, List<Stop> stops, int step, Words words) {
        List<Bar> bars = new ArrayList<>();
        int end = stops.isEmpty() ? LEFT : stops.get(stops.size() - 1).x() + step / 2;
        for (RevisionRow r : revisions) {
            int first = -1;
            int last = -1;
            for (int i = 0; i < shown.size(); i++) {
                if (shown.get(i).revision() != r.revision().id()) continue;
                if (first < 0) first = i;
                last = i;
            }
            if (first < 0) {
                // Started, nothing checked in yet: a stub behind the last version.
                if (r.revision().pending()) {
                    bars.add(new Bar(end + 4, 116, r.revision().shown(), says(r, words), RevisionLook.of(r)));
                }
                continue;
            }
            int x = stops.get(first).x() - Math.min(26, step / 2 - 2);
            int to = stops.get(last).x() + Math.min(step - 30, step / 2);
            bars.add(new Bar(x, Math.max(34, to - x), r.revision().shown(), says(r, words), RevisionLook.of(r)));
        }
        return bars;
    }

    private static String says(RevisionRow r, Words words) {
        if (r.dropped()) return "dropped";
        return r.revision().stage().name().toLowerCase(Locale.ROOT) + " " + words.shortly(r.stageSince());
    }

    private static List<Arc> arcs(List<VersionRow> shown, List<Stop> stops) {
        List<Arc> arcs = new ArrayList<>();
        for (int i = 0; i < shown.size(); i++) {
            if (shown.get(i).copyOf().isEmpty()) continue;
            int copied = shown.get(i).copyOf().get();
            for (int j = 0; j < i; j++) {
                if (stops.get(j).number() != copied) continue;
                int a = stops.get(j).x();
                int b = stops.get(i).x();
                arcs.add(new Arc("M" + a + " 56 C" + a + " 42 " + b + " 42 " + b + " 56"));
            }
        }
        return arcs;
    }

    /** Whether a bar is wide enough for its words: about seven units a letter. */
    public static boolean fits(Bar bar) {
        return bar.width() > 40 + bar.says().length() * 6.6;
    }
}
