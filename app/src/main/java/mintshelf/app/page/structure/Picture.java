package mintshelf.app.page.structure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.ToIntFunction;
import java.util.function.ToLongFunction;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.structure.ReadWhereUsed.Box;
import mintshelf.app.use.structure.ReadWhereUsed.UsedEdge;
import mintshelf.core.base.Texts;

/** Where a document is used, as boxes and lines in pixels: what is on top stands above, quantities at the lines. */
public record Picture(int width, int height, List<Placed> boxes, List<Drawn> lines) {
    private static final int BOX = 190;
    private static final int TALL = 44;
    private static final int GAP = 26;
    private static final int STEP = 98;
    private static final int EDGE = 16;

    /** A document's box; its upper left corner. */
    public record Placed(
            long id, int x, int y, String number, String revision, String shortTitle, String title, String stage) {}

    /** A line from a component's top to the bottom of what it stands in, and its quantity. */
    public record Drawn(String path, int x, int y, String says) {}

    static Picture of(ReadWhereUsed.Used used) {
        int rows = used.boxes().stream().mapToInt(Box::row).max().orElse(0) + 1;
        int widest = used.boxes().stream().mapToInt(Box::inRow).max().orElse(1);
        int width = Math.max(760, widest * (BOX + GAP) - GAP + 2 * EDGE);
        int height = rows * STEP - (STEP - TALL) + 2 * EDGE;
        Map<Long, Placed> boxes = new HashMap<>();
        for (Box b : used.boxes()) {
            int taken = b.inRow() * (BOX + GAP) - GAP;
            int x = (width - taken) / 2 + b.place() * (BOX + GAP);
            int y = height - EDGE - TALL - b.row() * STEP;
            Seen seen = b.seen();
            String revision = seen.current().shown() + " v" + seen.version();
            boxes.put(
                    seen.spine().id(),
                    new Placed(
                            seen.spine().id(),
                            x,
                            y,
                            seen.document().number(),
                            revision,
                            Texts.shorten(seen.document().title(), 19),
                            seen.document().number() + " " + seen.document().title() + ", "
                                    + seen.current().stage().name(),
                            seen.current().stage().stageClass().name().toLowerCase(Locale.ROOT)));
        }
        List<Drawn> lines = new ArrayList<>();
        for (UsedEdge l : used.lines()) {
            Placed from = boxes.get(l.from());
            Placed to = boxes.get(l.to());
            // Each line leaves and arrives at a point of its own, so that its quantity can stand beside it.
            int x1 = from.x()
                    + BOX / 2
                    + beside(
                            used.lines(),
                            l,
                            UsedEdge::from,
                            o -> boxes.get(o.to()).x());
            int x2 = to.x()
                    + BOX / 2
                    + beside(
                            used.lines(),
                            l,
                            UsedEdge::to,
                            o -> boxes.get(o.from()).x());
            int bottom = to.y() + TALL;
            int turn = bottom + 30 + Math.floorMod(x2, 3) * 6;
            String path = "M" + x1 + " " + from.y() + " V" + turn + " H" + x2 + " V" + bottom;
            lines.add(new Drawn(path, x2 + 5, bottom + 15, l.quantity() + " ×"));
        }
        return new Picture(
                width,
                height,
                boxes.values().stream()
                        .sorted(Comparator.comparingInt(Placed::y).thenComparingInt(Placed::x))
                        .toList(),
                lines);
    }

    /** How far a line's end lies from the middle of its box, among the lines that share the box. */
    private static int beside(
            List<UsedEdge> all, UsedEdge line, ToLongFunction<UsedEdge> box, ToIntFunction<UsedEdge> otherEnd) {
        List<UsedEdge> sharing = all.stream()
                .filter(o -> box.applyAsLong(o) == box.applyAsLong(line))
                .sorted(Comparator.comparingInt(otherEnd))
                .toList();
        int room = Math.min(40, (BOX - 30) / Math.max(1, sharing.size()));
        return (int) ((sharing.indexOf(line) - (sharing.size() - 1) / 2.0) * room);
    }
}
