package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The dimensions of a drawing: what they measure and what was typed over it. */
public final class Dimensions {
    private static final Pattern NUMBER = Pattern.compile(
            "^(?:\\d+\\s*[xX×]\\s*)?(?:[⌀ØøR]|SR|S⌀|M|□)?\\s*(\\d+(?:[.,]\\d+)?)(?:\\s*(?:mm|°|[A-Za-z]{1,2}\\d{1,2}|±.*|[+-].*)?)$");

    private Dimensions() {}

    /**
     * A dimension.
     *
     * @param typed the text that a person typed, empty where the dimension shows what it measures
     * @param measured between its points, in drawing units; 0 where its points do not tell
     * @param factor by which its style shows more than it measures
     * @param x where its text stands
     */
    public record Dimension(String typed, double measured, double factor, double x, double y) {}

    /** Those of model space and of the active layout, in the order of the file. O(bytes). */
    public static List<Dimension> of(DxfDrawing drawing) {
        List<Dimension> all = new ArrayList<>();
        if (drawing.entities < 0) return all;
        TagCursor tags = new TagCursor(drawing.source, drawing.entities, drawing.entitiesLine);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        while (all.size() < 100_000) {
            if (!more) {
                if (!drawing.mend(tags)) break;
                more = tags.next();
                continue;
            }
            if (tags.begin >= drawing.entitiesEnd) break;
            if (tags.code != 0 || !tags.is("DIMENSION")) {
                more = tags.next();
                continue;
            }
            more = e.fill(tags);
            double factor = drawing.dimensionStyles
                    .getOrDefault(DxfDrawing.key(e.name(3, "STANDARD")), DxfDrawing.DimensionStyle.USUAL)
                    .factor();
            String typed = String.join(" ", TextCodes.lines(e.line(1))).strip();
            double measured = measured(e);
            if (!e.isUnreadable()) {
                all.add(new Dimension(
                        typed, measured, factor == 0 ? 1 : Math.abs(factor), e.real(11, 0), e.real(21, 0)));
            }
        }
        return all;
    }

    private static double measured(Entity e) {
        int kind = e.whole(70, 0) & 15;
        if (kind == 3 || kind == 4) return Math.hypot(e.real(15, 0) - e.real(10, 0), e.real(25, 0) - e.real(20, 0));
        if (kind > 1 || !e.has(13) || !e.has(14)) return 0;
        double dx = e.real(14, 0) - e.real(13, 0);
        double dy = e.real(24, 0) - e.real(23, 0);
        if (kind == 1) return Math.hypot(dx, dy);
        double a = Math.toRadians(e.real(50, 0));
        return Math.abs(dx * Math.cos(a) + dy * Math.sin(a));
    }

    /** The size in a dimension's text: 4X Ø5.5 H11 is 5.5. Nothing for words. */
    public static OptionalDouble number(String text) {
        Matcher m = NUMBER.matcher(text.strip());
        return m.matches()
                ? OptionalDouble.of(Double.parseDouble(m.group(1).replace(',', '.')))
                : OptionalDouble.empty();
    }
}
