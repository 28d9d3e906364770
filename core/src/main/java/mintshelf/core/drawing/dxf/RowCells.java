package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * The cells of a row that is inserted as a block: where its attributes stand, how their letters are written and how much room each has.
 */
public final class RowCells {
    private RowCells() {}

    /**
     * How much a cell of a row takes.
     *
     * @param room in heights of its letters; infinite where nothing limits it
     * @param own the factor of its letters where there is room enough
     */
    public record CellRoom(double room, double own) {}

    /** Where an attribute stands in a row and how it is written. */
    record Cell(
            String tag,
            double x,
            double y,
            double height,
            String style,
            double angle,
            double factor,
            double own,
            boolean aligned) {}

    /** The cells of a row that the shelf draws. */
    static List<Cell> drawn(RowBlock.Shape shape) {
        List<Cell> cells = new ArrayList<>();
        double x = 0;
        double y = (shape.rowHeight() - shape.textHeight()) / 2 - (shape.upwards() ? 0 : shape.rowHeight());
        for (RowBlock.Column column : shape.columns()) {
            cells.add(new Cell(
                    column.tag().toUpperCase(Locale.ROOT),
                    x + shape.textHeight() * 0.4,
                    y,
                    shape.textHeight(),
                    "",
                    0,
                    1,
                    1,
                    false));
            x += column.width();
        }
        return cells;
    }

    /** The factor of letters that a block defines for an attribute, named as BLOCK/TAG. */
    static Optional<Double> definedWidth(DxfDrawing drawing, String attribute) {
        int slash = attribute.lastIndexOf('/');
        return of(drawing, attribute.substring(0, slash), 0).stream()
                .filter(c -> c.tag().equals(attribute.substring(slash + 1)))
                .map(Cell::own)
                .findFirst();
    }

    /**
     * How much room the cells of a row have, by tag in capitals: in the block that the sheet has, up to its next upright line or
     * attribute; where the shelf draws the rows, the width of the column. O(entities of the block).
     */
    public static Map<String, CellRoom> rooms(DxfDrawing drawing, RowBlock.Shape shape) {
        Map<String, CellRoom> rooms = new HashMap<>();
        Optional<String> block = RowBlock.onSheet(drawing, shape.block());
        for (RowBlock.Column column : shape.columns()) {
            double room = (column.width() - shape.textHeight() * 0.7) / shape.textHeight();
            rooms.put(column.tag().toUpperCase(Locale.ROOT), new CellRoom(room, 1));
        }
        if (block.isEmpty() || block.get().equals(RowBlock.DRAWN_ROW)) return rooms;
        List<Cell> cells = of(drawing, block.get(), shape.textHeight());
        List<double[]> uprights = uprights(drawing, block.get());
        for (Cell cell : cells) {
            double next = Double.POSITIVE_INFINITY;
            double middle = cell.y() + cell.height() / 2;
            for (double[] line : uprights) {
                if (line[0] > cell.x() && line[1] <= middle && line[2] >= middle) next = Math.min(next, line[0]);
            }
            for (Cell other : cells) {
                boolean beside = Math.abs(other.y() - cell.y()) < cell.height();
                if (beside && other.x() > cell.x()) next = Math.min(next, other.x());
            }
            double room = cell.angle() != 0 || cell.aligned() || cell.height() <= 0
                    ? Double.POSITIVE_INFINITY
                    : (next - cell.x()) / cell.height() - 0.3;
            // A last cell without a line behind it: as wide as the map says.
            CellRoom usual = rooms.get(cell.tag());
            if (next == Double.POSITIVE_INFINITY && usual != null) room = usual.room();
            rooms.put(cell.tag(), new CellRoom(room, cell.own()));
        }
        return rooms;
    }

    /** The upright lines of a block, from its base point. */
    private static List<double[]> uprights(DxfDrawing drawing, String block) {
        DxfDrawing.Block own = drawing.blocks.get(DxfDrawing.key(block));
        List<double[]> uprights = new ArrayList<>();
        if (own == null) return uprights;
        entities(drawing, own, e -> {
            boolean line = e.type().equals("LINE");
            if (!line && !e.type().equals("LWPOLYLINE")) return;
            double[] xs = line ? new double[] {e.real(10, 0), e.real(11, 0)} : e.all(10);
            double[] ys = line ? new double[] {e.real(20, 0), e.real(21, 0)} : e.all(20);
            double[] points = new double[2 * Math.min(xs.length, ys.length)];
            for (int i = 0; i < points.length / 2; i++) {
                points[2 * i] = xs[i] - own.x();
                points[2 * i + 1] = ys[i] - own.y();
            }
            SheetRoom.uprights(uprights, points, !line && (e.whole(70, 0) & 1) == 1);
        });
        return uprights;
    }

    private static void entities(DxfDrawing drawing, DxfDrawing.Block block, Consumer<Entity> each) {
        TagCursor tags = new TagCursor(drawing.source, block.from(), block.line());
        Entity e = new Entity(drawing.source, drawing.names);
        for (boolean more = tags.next(); more && tags.begin < block.to(); ) {
            more = e.fill(tags);
            each.accept(e);
        }
    }

    /** The attributes that a block of a row defines. */
    static List<Cell> of(DxfDrawing drawing, String block, double usual) {
        DxfDrawing.Block own = drawing.blocks.get(DxfDrawing.key(block));
        List<Cell> cells = new ArrayList<>();
        if (own == null) return cells;
        entities(drawing, own, e -> {
            if (!e.type().equals("ATTDEF")) return;
            cells.add(new Cell(
                    e.text(2, "").toUpperCase(Locale.ROOT),
                    e.real(10, 0) - own.x(),
                    e.real(20, 0) - own.y(),
                    e.real(40, usual),
                    e.text(7, ""),
                    e.real(50, 0),
                    e.real(41, 1),
                    e.real(41, LetterWidth.usual(drawing, e)),
                    e.whole(72, 0) != 0 || e.whole(74, 0) != 0));
        });
        return cells;
    }
}
