package mintshelf.core.drawing.partslist;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.Attributes;
import mintshelf.core.drawing.dxf.DxfDrawing;

/**
 * The parts list of an assembly sheet (ISO 7573) and the balloons that point at its lines (ISO 6433). A line is a block with an
 * attribute for the find number; a balloon is a number in a circle.
 *
 * @param block whose inserts are the rows; empty where the sheet has no list
 * @param lines by find number, in the order of find numbers
 * @param balloons boxes by find number
 */
public record PartsList(String block, Map<String, PartLine> lines, Map<String, List<Box>> balloons) {
    /** Tags under which houses keep the find number of a line. */
    static final List<String> FIND = List.of("FIND", "ITEM", "POS");

    static final List<String> QUANTITY = List.of("QTY", "QUANTITY");
    static final List<String> NUMBER = List.of("NUMBER", "PART", "PART_NUMBER");
    static final List<String> TITLE = List.of("TITLE", "NAME", "DESCRIPTION");

    /** Balloons are 5 to 20 mm wide. */
    private static final double LEAST = 2.4;

    private static final double MOST = 10.1;
    private static final int MOST_LINES = 5000;

    /**
     * A line of the list.
     *
     * @param values all that it says, by tag in capitals
     */
    public record PartLine(String find, String quantity, String number, String title, Map<String, String> values) {}

    /**
     * Reads both from a sheet. O(bytes + circles + texts).
     *
     * @param millimetre how long one is on the sheet
     */
    public static PartsList of(DxfDrawing drawing, Scene scene, double millimetre) {
        List<String> blocks = new ArrayList<>();
        Map<String, PartLine> lines = lines(drawing, blocks);
        // A number in a circle is a balloon only where there is a parts list.
        return lines.isEmpty()
                ? new PartsList("", lines, Map.of())
                : new PartsList(blocks.get(0), lines, balloons(scene, millimetre));
    }

    private static Map<String, PartLine> lines(DxfDrawing drawing, List<String> blocks) {
        Map<String, PartLine> lines = new TreeMap<>(FindNumbers::compare);
        List<Attributes.Attribute> row = new ArrayList<>();
        for (Attributes.Attribute a : drawing.attributes()) {
            // One insert follows another: a tag that comes again begins the next row.
            boolean again = row.stream()
                    .anyMatch(
                            b -> b.tag().equalsIgnoreCase(a.tag()) || !b.block().equals(a.block()));
            if (again) {
                keep(row, lines, blocks);
                row.clear();
            }
            row.add(a);
        }
        keep(row, lines, blocks);
        return lines;
    }

    private static void keep(List<Attributes.Attribute> row, Map<String, PartLine> lines, List<String> blocks) {
        String find = value(row, FIND);
        String quantity = value(row, QUANTITY);
        if (find.isEmpty() || quantity.isEmpty() || lines.size() >= MOST_LINES) return;
        Map<String, String> values = new LinkedHashMap<>();
        row.forEach(a ->
                values.putIfAbsent(a.tag().toUpperCase(Locale.ROOT), a.value().strip()));
        lines.putIfAbsent(find, new PartLine(find, quantity, value(row, NUMBER), value(row, TITLE), values));
        blocks.add(row.get(0).block());
    }

    private static String value(List<Attributes.Attribute> row, List<String> tags) {
        return row.stream()
                .filter(a -> tags.contains(a.tag().toUpperCase(Locale.ROOT)))
                .map(a -> a.value().strip())
                .findFirst()
                .orElse("");
    }

    private static Map<String, List<Box>> balloons(Scene scene, double millimetre) {
        record Label(String text, double x, double y) {}
        List<Label> numbers = new ArrayList<>();
        for (Primitive p : scene.primitives()) {
            if (p instanceof Primitive.Text t && t.text().strip().matches("\\d{1,3}")) {
                numbers.add(
                        new Label(t.text().strip(), t.box().middleX(), t.box().middleY()));
            }
        }
        Map<String, List<Box>> balloons = new TreeMap<>();
        for (Primitive p : scene.primitives()) {
            if (!(p instanceof Primitive.Arc arc) || arc.sweep() < 359.9) continue;
            if (arc.radius() < LEAST * millimetre || arc.radius() > MOST * millimetre) continue;
            for (Label number : numbers) {
                if (Math.hypot(number.x() - arc.x(), number.y() - arc.y()) > arc.radius() * 0.4) continue;
                balloons.computeIfAbsent(number.text(), n -> new ArrayList<>()).add(p.box());
                break;
            }
        }
        return balloons;
    }
}
