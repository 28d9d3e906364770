package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * What a drawing says of itself.
 *
 * @param units of model space, as in $INSUNITS, such as mm; empty where the file does not say
 * @param entities top-level entities of model space by type
 * @param extents of the lines and areas of model space, of its texts where there are no others; {@link Box#EMPTY} where it draws nothing
 * @param texts TEXT and MTEXT of model space as a reader sees them
 * @param said what could not be read, a sentence each
 */
public record DrawingFacts(
        boolean binary,
        String version,
        String encoding,
        String units,
        List<String> layers,
        List<String> blocks,
        List<String> layouts,
        Map<String, Integer> entities,
        Map<String, Integer> paperEntities,
        Box extents,
        List<String> texts,
        List<Attributes.Attribute> attributes,
        Map<String, String> references,
        Map<String, Integer> notDrawn,
        List<String> said) {
    private static final int MOST_TEXTS = 100_000;
    private static final List<String> UNITS =
            List.of("", "in", "ft", "mi", "mm", "cm", "m", "km", "µin", "mil", "yd", "Å", "nm", "µm", "dm");

    /** Reads them. O(bytes + primitives). */
    public static DrawingFacts of(DxfDrawing drawing) {
        Outcome<Scene> read = drawing.scene(DxfDrawing.MODEL, 0);
        Scene scene = read instanceof Outcome.Granted<Scene> granted
                ? granted.value()
                : new Scene(
                        List.of(),
                        Map.of(),
                        Map.of(),
                        List.of(read.refusal().orElseThrow().reason()));
        return new DrawingFacts(
                drawing.isBinary(),
                drawing.version(),
                drawing.encoding(),
                units(drawing),
                drawing.layers(),
                drawing.blocks(),
                drawing.layouts(),
                drawing.entities(),
                drawing.paperEntities(),
                geometry(scene),
                texts(drawing),
                drawing.attributes(),
                drawing.references(),
                scene.notDrawn(),
                scene.said());
    }

    /** The box of lines and areas; that of the texts where there is nothing else, for how wide letters are is a guess. */
    private static Box geometry(Scene scene) {
        Box box = Box.EMPTY;
        for (Primitive p : scene.primitives()) if (!(p instanceof Primitive.Text)) box = box.with(p.box());
        return box.isEmpty() ? scene.extents() : box;
    }

    private static String units(DxfDrawing drawing) {
        int unit = (int) drawing.variable("$INSUNITS", 0);
        return unit > 0 && unit < UNITS.size() ? UNITS.get(unit) : "";
    }

    private static List<String> texts(DxfDrawing drawing) {
        List<String> texts = new ArrayList<>();
        if (drawing.entities < 0) return texts;
        TagCursor tags = new TagCursor(drawing.source, drawing.entities, drawing.entitiesLine);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        while (texts.size() < MOST_TEXTS) {
            if (!more) {
                if (!drawing.mend(tags)) break;
                more = tags.next();
                continue;
            }
            if (tags.begin >= drawing.entitiesEnd) break;
            boolean wanted = tags.code == 0 && (tags.is("TEXT") || tags.is("MTEXT"));
            if (!wanted) {
                more = tags.next();
                continue;
            }
            more = e.fill(tags);
            if (e.whole(67, 0) != 0) continue;
            String text = e.type().equals("TEXT")
                    ? TextCodes.line(e.line(1))
                    : String.join("\n", TextCodes.lines(e.joined(3) + e.line(1)));
            if (!text.isBlank()) texts.add(text);
        }
        return texts;
    }
}
