package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.SheetContent.Row;

/**
 * Rows of a block that is inserted once a row, such as a revision block. Rows that stand on the sheet are filled where they stand;
 * a row more repeats the first one a step further; where the sheet has no such block, one is drawn.
 *
 * <p>All of it is a pure function of the drawing and the rows, so that writing again gives the same bytes.
 *
 * <p>A row more is the first one's entities, byte for byte, with new handles, new values and its y moved by the step: the way between the
 * first two rows that stand on the sheet, else the row height that the map says. New handles begin behind the highest of the file, and
 * the head's seed is moved behind them where it is lower, so that no program finds one twice; files without handles get none.
 * O(bytes of the drawing + rows × columns). It does not hold for rows that run sideways: only y is moved.
 */
public final class RowBlock {
    /** The blocks that the shelf draws where a sheet has none of its own. */
    public static final String DRAWN_ROW = "SHELF_REVISION_ROW";

    public static final String DRAWN_HEAD = "SHELF_REVISION_HEAD";
    /** How wide a letter is to its height, so that texts stay inside their cells. */
    private static final double LETTER = 0.72;

    private final DxfDrawing drawing;
    private final DxfEdit edit;
    private final Shape shape;
    private final boolean marked;
    private final boolean fitted;
    private long nextHandle;
    private final long firstHandle;

    /** A column: the tag of its attribute, its heading, its width. */
    public record Column(String tag, String heading, double width) {}

    /**
     * How rows stand, in the sheet's units.
     *
     * @param block the sheet's own block of a row
     * @param x left end of the rows
     * @param y where the first row begins: its heading's foot when rows go upwards, else its heading's top
     */
    public record Shape(
            String block,
            List<Column> columns,
            double rowHeight,
            double textHeight,
            boolean upwards,
            double x,
            double y,
            String layer) {
        public Shape {
            columns = List.copyOf(columns);
        }

        double headHeight() {
            return rowHeight * 0.84;
        }
    }

    /**
     * What a cell says.
     *
     * @param factor of its letters; 0 where that is left as it is
     */
    public record Said(String text, double factor) {}

    private RowBlock(DxfDrawing drawing, DxfEdit edit, Shape shape, boolean fitted) {
        this.fitted = fitted;
        this.drawing = drawing;
        this.edit = edit;
        this.shape = shape;
        this.marked = drawing.isMarked();
        this.firstHandle = firstFree(drawing);
        this.nextHandle = firstHandle;
    }

    /** The name of the block whose rows the sheet carries: its own one before the shelf's. */
    public static Optional<String> onSheet(DxfDrawing drawing, String block) {
        for (String name : List.of(block, DRAWN_ROW)) {
            if (!name.isEmpty() && drawing.blocks.containsKey(DxfDrawing.key(name))) return Optional.of(name);
        }
        return Optional.empty();
    }

    /** The rows that stand on the sheet, the first one first. */
    public static List<Row> rows(DxfDrawing drawing, String block, boolean upwards) {
        List<Row> rows = new ArrayList<>(SheetContent.rows(drawing, block));
        Comparator<Row> byHeight = Comparator.comparingDouble(Row::y);
        rows.sort(upwards ? byHeight : byHeight.reversed());
        return rows;
    }

    /**
     * Adds to {@code edit} what makes the sheet carry these rows.
     *
     * @param rows values by tag in capitals, the first row first; rows beyond them are emptied
     * @param fitted whether the values were fitted into their cells; of sheets that were written before that was done, they are
     *     cut as they were
     * @return how many values changed, or why the sheet cannot carry them
     */
    public static Outcome<Integer> write(
            DxfDrawing drawing, DxfEdit edit, Shape shape, List<Map<String, Said>> rows, boolean fitted) {
        Optional<String> there = onSheet(drawing, shape.block());
        if (there.isEmpty() && rows.isEmpty()) return Outcome.granted(0);
        boolean unfit =
                there.isEmpty() && (drawing.blocksEnd < 0 || (drawing.isMarked() && drawing.blockRecordsEnd < 0));
        if (unfit || !isEnded(drawing)) {
            return Outcome.refused(
                    "sheet.no_tables",
                    "The sheet has no table of blocks that a revision block could go into.",
                    "Save it once more from the program that drew it.");
        }
        RowBlock writer = new RowBlock(drawing, edit, shape, fitted);
        int changed = writer.write(there.orElse(DRAWN_ROW), there.isEmpty(), rows);
        writer.keepSeed();
        return Outcome.granted(changed);
    }

    /** Whether the sheet's own entities have an end mark that rows can be put before. */
    static boolean isEnded(DxfDrawing drawing) {
        DxfDrawing.Room room = drawing.room();
        if (room.from() < 0 || room.to() >= drawing.source.bytes.length) return false;
        TagCursor tags = new TagCursor(drawing.source, room.to(), 1);
        return tags.next() && tags.code == 0 && (tags.is("ENDSEC") || tags.is("ENDBLK"));
    }

    private int write(String block, boolean draw, List<Map<String, Said>> rows) {
        if (draw) define();
        List<Row> there = rows(drawing, block, shape.upwards());
        int changed = 0;
        for (int i = 0; i < there.size(); i++) {
            Map<String, Said> wanted = i < rows.size() ? rows.get(i) : Map.of();
            changed += fill(there.get(i), wanted, i < rows.size());
        }
        if (rows.size() <= there.size()) return changed;
        boolean own = !block.equals(DRAWN_ROW);
        DxfDrawing.Room room = drawing.room();
        int at = there.stream().mapToInt(r -> r.range().to()).max().orElse(room.to());
        if (draw) edit.insert(at, head());
        double step =
                there.size() > 1 ? Math.abs(there.get(1).y() - there.get(0).y()) : shape.rowHeight();
        for (int i = there.size(); i < rows.size(); i++) {
            double up = (shape.upwards() ? step : -step) * i;
            byte[] row = there.isEmpty()
                    ? row(
                            block,
                            own ? RowCells.of(drawing, block, shape.textHeight()) : RowCells.drawn(shape),
                            up,
                            rows.get(i))
                    : repeated(there.get(0), up, rows.get(i));
            edit.insert(at, row);
            changed++;
        }
        return changed;
    }

    /** Puts values into a row that is there; what the row has and nobody names stays, unless the row is not wanted. */
    private int fill(Row row, Map<String, Said> wanted, boolean named) {
        int changed = 0;
        for (Map.Entry<String, List<Place>> site : row.sites().entrySet()) {
            String now = row.values().getOrDefault(site.getKey(), "");
            Said said = wanted.getOrDefault(site.getKey(), new Said(named ? now : "", 0));
            String value = fitting(site.getKey(), said.text());
            LetterWidth width = row.widths().get(site.getKey());
            boolean one = site.getValue().size() == 1 && said.factor() > 0;
            boolean narrowed = one && width != null && edit.letters(width, said.factor());
            if (value.equals(now)) {
                if (narrowed) changed++;
                continue;
            }
            site.getValue().forEach(place -> edit.replace(place, value));
            changed++;
        }
        return changed;
    }

    /** As it was done before texts were fitted: what fits into a column that the shelf drew. */
    private String fitting(String tag, String value) {
        if (fitted) return value;
        if (onSheet(drawing, shape.block()).filter(b -> !b.equals(DRAWN_ROW)).isPresent()) return value;
        for (Column column : shape.columns()) {
            if (!column.tag().equalsIgnoreCase(tag)) continue;
            int letters = (int) ((column.width() - shape.textHeight()) / (shape.textHeight() * LETTER));
            if (value.length() > Math.max(4, letters)) return value.substring(0, Math.max(1, letters - 3)) + "...";
        }
        return value;
    }

    /** A row as the first one is, with everything that hangs on it, {@code up} higher and with other values. */
    private byte[] repeated(Row first, double up, Map<String, Said> values) {
        Map<Long, Long> handles = new HashMap<>();
        DxfSource source = drawing.source;
        for (TagCursor tags = new TagCursor(source, first.range().from(), 1);
                tags.at < first.range().to() && tags.next(); ) {
            if (tags.code == 5 && marksHandles()) handles.put(handle(tags), handle());
        }
        TagWriter out = new TagWriter(source);
        Map<Place, String> bySite = new HashMap<>();
        // Of a factor that the first row has and this one needs another of, and of one that it lacks: the tag, by its
        // place.
        Map<Integer, Double> factors = new HashMap<>();
        first.sites().forEach((tag, places) -> {
            Said said = values.getOrDefault(tag, new Said("", 0));
            places.forEach(place -> bySite.put(place, fitting(tag, said.text())));
            LetterWidth width = first.widths().get(tag);
            if (width != null && places.size() == 1 && said.factor() > 0 && !width.isAs(said.factor())) {
                factors.put(width.tag().map(Place::from).orElse(width.at()), said.factor());
            }
        });
        for (TagCursor tags = new TagCursor(source, first.range().from(), 1);
                tags.at < first.range().to() && tags.next(); ) {
            Optional<String> value = Optional.ofNullable(bySite.get(new Place(tags.start, tags.end)));
            Optional<Double> factor = Optional.ofNullable(factors.get(tags.begin));
            if (factor.isPresent()) out.real(41, factor.get());
            if (factor.isPresent() && tags.code == 41) continue;
            boolean pointer = tags.code == 5 || (tags.code >= 330 && tags.code < 370);
            if (value.isPresent()) {
                out.text(tags.code, value.get());
            } else if (pointer && handles.containsKey(handle(tags))) {
                out.handle(tags.code, handles.getOrDefault(handle(tags), 0L));
            } else if (tags.code == 20 || tags.code == 21) {
                double y = source.binary
                        ? Numbers.realBinary(source.bytes, tags.start)
                        : Numbers.real(source.bytes, tags.start, tags.end);
                out.real(tags.code, y + up);
            } else {
                out.copy(tags.begin, tags.at);
            }
        }
        return out.bytes();
    }

    private long handle(TagCursor tags) {
        return Math.max(0, Numbers.hex(drawing.source.bytes, tags.start, tags.end));
    }

    static long firstFree(DxfDrawing drawing) {
        long highest = 0;
        TagCursor tags = new TagCursor(drawing.source);
        while (tags.next() || (tags.damaged && tags.resume())) {
            if (tags.code == 5 || tags.code == 105) {
                highest = Math.max(highest, Numbers.hex(drawing.source.bytes, tags.start, tags.end));
            }
        }
        return highest == 0 && !drawing.isMarked() ? 0 : highest + 1;
    }

    private boolean marksHandles() {
        return firstHandle > 0;
    }

    private long handle() {
        return nextHandle++;
    }

    private void keepSeed() {
        if (nextHandle != firstHandle) keepSeed(drawing, edit, nextHandle);
    }

    /** The head names the next free handle. */
    static void keepSeed(DxfDrawing drawing, DxfEdit edit, long next) {
        if (drawing.handSeed.isEmpty()) return;
        Place seed = drawing.handSeed.get();
        if (Numbers.hex(drawing.source.bytes, seed.from(), seed.to()) >= next) return;
        edit.replace(seed, Long.toHexString(next).toUpperCase(Locale.ROOT));
    }

    private TagWriter writer() {
        return new TagWriter(drawing.source);
    }

    /** Begins an entity of the sheet or of a block. */
    private long entity(TagWriter out, String type, long owner, String layer, boolean onSheet, String... marks) {
        out.text(0, type);
        long handle = marksHandles() ? handle() : 0;
        if (handle > 0) out.handle(5, handle);
        if (marked && owner > 0) out.handle(330, owner);
        if (marked) out.text(100, "AcDbEntity");
        if (onSheet && !drawing.sheet().equals(DxfDrawing.MODEL)) out.whole(67, 1);
        out.text(8, layer);
        for (String mark : marks) if (marked) out.text(100, mark);
        return handle;
    }

    /** The definitions of a row and of the heading, before the end of the section of blocks. */
    private void define() {
        double width = shape.columns().stream().mapToDouble(Column::width).sum();
        TagWriter records = writer();
        TagWriter blocks = writer();
        for (String name : List.of(DRAWN_HEAD, DRAWN_ROW)) {
            boolean head = name.equals(DRAWN_HEAD);
            long record = 0;
            if (marked) {
                record = handle();
                records.text(0, "BLOCK_RECORD").handle(5, record);
                if (drawing.blockRecordsHandle > 0) records.handle(330, drawing.blockRecordsHandle);
                records.text(100, "AcDbSymbolTableRecord").text(100, "AcDbBlockTableRecord");
                records.text(2, name).text(340, "0");
            }
            entity(blocks, "BLOCK", record, "0", false, "AcDbBlockBegin");
            blocks.text(2, name)
                    .whole(70, head ? 0 : 2)
                    .point(10, 0, 0)
                    .text(3, name)
                    .text(1, "");
            double height = head ? shape.headHeight() : shape.rowHeight();
            double low = shape.upwards() ? 0 : -height;
            // Each line is drawn once: a row brings the edge that its neighbour lacks.
            double edge = shape.upwards() ? height : -height;
            line(blocks, record, 0, edge, width, edge);
            if (head) line(blocks, record, 0, 0, width, 0);
            double x = 0;
            line(blocks, record, x, low, x, low + height);
            for (Column column : shape.columns()) {
                if (head) heading(blocks, record, x, low, column);
                x += column.width();
                line(blocks, record, x, low, x, low + height);
            }
            if (!head) for (RowCells.Cell cell : RowCells.drawn(shape)) definition(blocks, record, cell);
            entity(blocks, "ENDBLK", record, "0", false, "AcDbBlockEnd");
        }
        if (marked) edit.insert(drawing.blockRecordsEnd, records.bytes());
        edit.insert(drawing.blocksEnd, blocks.bytes());
    }

    private void line(TagWriter out, long owner, double x1, double y1, double x2, double y2) {
        entity(out, "LINE", owner, "0", false, "AcDbLine");
        out.point(10, x1, y1).point(11, x2, y2);
    }

    private void heading(TagWriter out, long owner, double x, double low, Column column) {
        entity(out, "TEXT", owner, "0", false, "AcDbText");
        double height = shape.textHeight() * (fitted ? 1 : LETTER);
        out.point(10, x + shape.textHeight() * 0.4, low + (shape.headHeight() - height) / 2);
        out.real(40, height).text(1, column.heading());
        if (marked) out.text(100, "AcDbText");
    }

    private void definition(TagWriter out, long owner, RowCells.Cell cell) {
        entity(out, "ATTDEF", owner, "0", false, "AcDbText");
        out.point(10, cell.x(), cell.y()).real(40, cell.height()).text(1, "");
        if (marked) out.text(100, "AcDbAttributeDefinition");
        out.text(3, cell.tag()).text(2, cell.tag()).whole(70, 0);
    }

    private byte[] head() {
        TagWriter out = writer();
        entity(out, "INSERT", drawing.sheetRecord(), shape.layer(), true, "AcDbBlockReference");
        out.text(2, DRAWN_HEAD).point(10, shape.x(), shape.y());
        return out.bytes();
    }

    private byte[] row(String block, List<RowCells.Cell> cells, double up, Map<String, Said> values) {
        TagWriter out = writer();
        double head = block.equals(DRAWN_ROW) ? shape.headHeight() : 0;
        double y = shape.y() + (shape.upwards() ? head : -head) + up;
        long insert = entity(out, "INSERT", drawing.sheetRecord(), shape.layer(), true, "AcDbBlockReference");
        out.whole(66, 1).text(2, block).point(10, shape.x(), y);
        for (RowCells.Cell cell : cells) {
            entity(out, "ATTRIB", insert, shape.layer(), true, "AcDbText");
            out.point(10, shape.x() + cell.x(), y + cell.y()).real(40, cell.height());
            Said said = values.getOrDefault(cell.tag(), new Said("", 0));
            out.text(1, fitting(cell.tag(), said.text()));
            if (cell.angle() != 0) out.real(50, cell.angle());
            double factor = said.factor() > 0 ? said.factor() : cell.factor();
            if (factor != 1) out.real(41, factor);
            if (!cell.style().isEmpty()) out.text(7, cell.style());
            if (marked) out.text(100, "AcDbAttribute");
            out.text(2, cell.tag()).whole(70, 0);
        }
        entity(out, "SEQEND", insert, shape.layer(), true);
        return out.bytes();
    }

    /** What of a drawing belongs to the shelf: its own blocks with their records and inserts, rows of {@code block}, the seed. */
    public static List<Place> owned(DxfDrawing drawing, String block) {
        List<Place> owned = new ArrayList<>();
        drawing.handSeed.ifPresent(owned::add);
        for (String name : List.of(block, DRAWN_ROW, DRAWN_HEAD)) {
            if (!name.isEmpty()) SheetContent.rows(drawing, name).forEach(row -> owned.add(row.range()));
        }
        TagCursor tags = new TagCursor(drawing.source);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        int began = -1;
        while (more || (tags.damaged && tags.resume())) {
            if (!more || tags.code != 0) {
                more = tags.next();
                continue;
            }
            if (began < 0 && drawing.entities >= 0 && tags.begin >= drawing.entities) break;
            more = e.fill(tags);
            boolean drawn = e.type().startsWith("BLOCK")
                    && List.of(DRAWN_ROW, DRAWN_HEAD).contains(e.text(2, ""));
            if (drawn && e.type().equals("BLOCK_RECORD")) owned.add(new Place(e.begin, e.after));
            if (drawn && e.type().equals("BLOCK")) began = e.begin;
            if (began >= 0 && e.type().equals("ENDBLK")) {
                owned.add(new Place(began, e.after));
                began = -1;
            }
        }
        return owned;
    }
}
