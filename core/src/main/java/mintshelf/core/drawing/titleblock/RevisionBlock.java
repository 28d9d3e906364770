package mintshelf.core.drawing.titleblock;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.core.drawing.Lettering;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.RowBlock;
import mintshelf.core.drawing.dxf.RowCells;

/**
 * How a sheet format carries its revision block (ASME Y14.35, clause 6): through a block of its own that is inserted once a row,
 * else drawn by the shelf at a place.
 *
 * @param block the sheet's own block of a row; empty where the format has none
 * @param most rows at most: beyond them the oldest go
 * @param upwards whether the first revision stands lowest
 * @param releasedOnly whether a revision shows only once it is released
 * @param drawn whether the shelf draws one on a sheet without, when it writes anyway
 * @param fromRight left end of the rows, in mm from the sheet's right edge
 * @param fromBottom where the block begins, in mm from the sheet's lower edge: its foot, or its top when it goes downwards
 * @param rowHeight in mm
 * @param textHeight in mm
 * @param lines rows that one revision may take where what it says is longer than a row
 */
public record RevisionBlock(
        String block,
        List<Column> columns,
        int most,
        boolean upwards,
        boolean releasedOnly,
        boolean drawn,
        double fromRight,
        double fromBottom,
        double rowHeight,
        double textHeight,
        int lines) {
    /** What rows can say: the revision's label, where and what changed, when, by whom, who approved it, on which order. */
    public static final List<String> FACTS =
            List.of("revision", "zone", "description", "date", "by", "approved", "order");

    private static final String WORDS = "description";
    private static final Set<String> NAMES = Set.of("by", "approved");

    public RevisionBlock {
        columns = List.copyOf(columns);
    }

    /** A column: the attribute's tag, the fact behind it, its heading and its width in mm where the shelf draws it. */
    public record Column(String tag, String fact, String heading, double width) {}

    /** Seven columns over a title block of 180 mm. */
    public static RevisionBlock readyMade() {
        return new RevisionBlock(
                "REVISION_ROW",
                List.of(
                        new Column("REV", "revision", "Rev.", 12),
                        new Column("ZONE", "zone", "Zone", 14),
                        new Column("DESCRIPTION", "description", "Revision", 62),
                        new Column("DATE", "date", "Date", 22),
                        new Column("BY", "by", "By", 26),
                        new Column("APPROVED", "approved", "Approved", 26),
                        new Column("ORDER", "order", "Order", 18)),
                8,
                true,
                false,
                false,
                190,
                54,
                6,
                2.5,
                3);
    }

    /** What is wrong with it, a sentence each. */
    List<String> wrong() {
        List<String> wrong = new ArrayList<>();
        if (columns.isEmpty()) wrong.add("The revision block has no column.");
        if (columns.stream().noneMatch(c -> c.fact().equals("revision"))) {
            wrong.add("A column must say the revision: rows are known by it.");
        }
        Set<String> tags = new HashSet<>();
        for (Column column : columns) {
            if (column.tag().isBlank() || !tags.add(column.tag().toUpperCase(Locale.ROOT))) {
                wrong.add("Each column needs a tag of its own.");
            }
            if (!FACTS.contains(column.fact())) wrong.add("Rows cannot say “" + column.fact() + "”.");
            if (!(column.width() >= 4 && column.width() <= 200)) {
                wrong.add("The column " + column.tag() + " should be 4 to 200 mm wide.");
            }
        }
        if (most < 1 || most > 50) wrong.add("A revision block has 1 to 50 rows.");
        if (lines < 1 || lines > 5) wrong.add("A revision takes 1 to 5 rows.");
        if (!(textHeight >= 1 && textHeight < rowHeight && rowHeight <= 50)) {
            wrong.add("Letters must be lower than their row, and at least 1 mm high.");
        }
        if (!(fromRight >= 0 && fromRight <= 1189 && fromBottom >= 0 && fromBottom <= 1189)) {
            wrong.add("The revision block lies off every sheet.");
        }
        return wrong;
    }

    /** Whether the sheet carries rows, of its own or of the shelf's. O(1). */
    public boolean isOn(DxfDrawing drawing) {
        return RowBlock.onSheet(drawing, block).isPresent();
    }

    /** The rows that stand on the sheet, by fact; rows without any value are left out, what goes on below is joined. O(bytes). */
    public List<Map<String, String>> read(DxfDrawing drawing) {
        List<Map<String, String>> rows = standing(drawing);
        return lines > 1 ? joined(rows, labels(rows)) : rows;
    }

    private List<Map<String, String>> standing(DxfDrawing drawing) {
        Optional<String> name = RowBlock.onSheet(drawing, block);
        if (name.isEmpty()) return List.of();
        List<Map<String, String>> rows = new ArrayList<>();
        RowBlock.rows(drawing, name.get(), upwards).forEach(row -> {
            Map<String, String> said = new LinkedHashMap<>();
            for (Column column : columns) {
                String value = row.values().getOrDefault(column.tag().toUpperCase(Locale.ROOT), "");
                if (!value.isBlank()) said.put(column.fact(), value);
            }
            if (!said.isEmpty()) rows.add(said);
        });
        return rows;
    }

    /**
     * Rows with those that only go on with the words of the one above joined to it, where that is one of {@code labels}. On the
     * sheet a reader goes downwards, also where the first revision stands lowest.
     */
    private List<Map<String, String>> joined(List<Map<String, String>> rows, Set<String> labels) {
        List<Map<String, String>> downwards = new ArrayList<>(rows);
        if (upwards) Collections.reverse(downwards);
        List<Map<String, String>> joined = new ArrayList<>();
        int taken = 0;
        for (Map<String, String> row : downwards) {
            Map<String, String> above = joined.isEmpty() ? Map.of() : joined.get(joined.size() - 1);
            boolean goesOn = row.keySet().equals(Set.of(WORDS))
                    && !label(above).isEmpty()
                    && labels.contains(label(above))
                    && taken < lines;
            if (goesOn) {
                above.merge(WORDS, row.get(WORDS), (a, b) -> a + " " + b);
                taken++;
            } else {
                joined.add(new LinkedHashMap<>(row));
                taken = 1;
            }
        }
        if (upwards) Collections.reverse(joined);
        return joined;
    }

    /**
     * What the sheet will carry, the first row first, by tag in capitals: what the record says, fitted into the cells, and what
     * nobody recorded as it stands. A revision whose words need more rows has them below its first one.
     */
    public List<Map<String, RowBlock.Said>> laidOut(DxfDrawing drawing, List<Map<String, String>> record) {
        return laidOut(drawing, record, standing(drawing));
    }

    /** As {@link #laidOut(DxfDrawing, List)}, of a sheet whose history begins anew: what stands on it is another document's. */
    public List<Map<String, RowBlock.Said>> anew(DxfDrawing drawing, List<Map<String, String>> record) {
        return laidOut(drawing, record, List.of());
    }

    /** As {@link #laidOut(DxfDrawing, List)}, of a sheet whose rows stand elsewhere than in the block. */
    public List<Map<String, RowBlock.Said>> laidOut(
            DxfDrawing drawing, List<Map<String, String>> record, List<Map<String, String>> before) {
        Set<String> known = labels(record);
        Map<String, RowCells.CellRoom> rooms = RowCells.rooms(drawing, shape(drawing, "0"));
        List<Map<String, String>> after = merged(lines > 1 ? joined(before, known) : before, record);
        List<List<Map<String, RowBlock.Said>>> groups = new ArrayList<>();
        for (Map<String, String> row : after)
            groups.add(known.contains(label(row)) ? fitted(row, rooms) : List.of(as(row)));
        int rows = groups.stream().mapToInt(List::size).sum();
        while (rows > most && groups.size() > 1) rows -= groups.remove(0).size();
        return groups.stream().flatMap(List::stream).limit(most).toList();
    }

    private Map<String, RowBlock.Said> as(Map<String, String> row) {
        Map<String, RowBlock.Said> cells = new LinkedHashMap<>();
        for (Column c : columns) {
            cells.put(c.tag().toUpperCase(Locale.ROOT), new RowBlock.Said(row.getOrDefault(c.fact(), ""), 0));
        }
        return cells;
    }

    private List<Map<String, RowBlock.Said>> fitted(Map<String, String> row, Map<String, RowCells.CellRoom> rooms) {
        List<Map<String, RowBlock.Said>> all = new ArrayList<>();
        all.add(new LinkedHashMap<>());
        for (Column c : columns) {
            String tag = c.tag().toUpperCase(Locale.ROOT);
            String value = row.getOrDefault(c.fact(), "");
            RowCells.CellRoom room = rooms.getOrDefault(tag, new RowCells.CellRoom(Double.POSITIVE_INFINITY, 1));
            int most = c.fact().equals(WORDS) ? Math.min(lines, this.most) : 1;
            Lettering.Fitted fitted = NAMES.contains(c.fact())
                    ? Lettering.fitNames(value, room.room(), room.own())
                    : Lettering.fit(
                            value, room.room(), room.own(), most, c.fact().equals("revision"));
            for (int i = 0; i < fitted.lines().size(); i++) {
                if (i == all.size()) all.add(as(Map.of()));
                all.get(i).put(tag, new RowBlock.Said(fitted.lines().get(i), fitted.factor()));
            }
        }
        if (upwards) Collections.reverse(all);
        return all;
    }

    /**
     * What the rows will be: those that stand on the sheet, with what the record says of the revisions it knows; revisions that
     * are not on it follow. What nobody recorded, such as the rows of a drawing that was brought, stays.
     */
    public List<Map<String, String>> merged(List<Map<String, String>> onSheet, List<Map<String, String>> record) {
        int gone = Math.max(0, record.size() - most);
        Set<String> left = labels(record.subList(0, gone));
        List<Map<String, String>> rows = new ArrayList<>();
        for (Map<String, String> row : onSheet) {
            if (!left.contains(label(row))) rows.add(new LinkedHashMap<>(row));
        }
        for (int i = gone; i < record.size(); i++) {
            Map<String, String> said = record.get(i);
            int at = find(rows, Set.of(label(said)));
            if (at >= 0) {
                rows.get(at).putAll(said);
            } else {
                int later = find(rows, labels(record.subList(i + 1, record.size())));
                rows.add(later < 0 ? rows.size() : later, new LinkedHashMap<>(said));
            }
        }
        return rows.subList(Math.max(0, rows.size() - most), rows.size());
    }

    private static String label(Map<String, String> row) {
        return row.getOrDefault("revision", "");
    }

    private static Set<String> labels(List<Map<String, String>> rows) {
        return rows.stream().map(RevisionBlock::label).collect(Collectors.toSet());
    }

    private static int find(List<Map<String, String>> rows, Set<String> labels) {
        for (int i = 0; i < rows.size(); i++) {
            if (!label(rows.get(i)).isEmpty() && labels.contains(label(rows.get(i)))) return i;
        }
        return -1;
    }

    /** The rows by the tags of their attributes, as they were written before texts were fitted. */
    public List<Map<String, RowBlock.Said>> tagged(List<Map<String, String>> rows) {
        return rows.stream()
                .map(row -> {
                    Map<String, RowBlock.Said> tagged = new LinkedHashMap<>();
                    for (Column c : columns) {
                        Optional.ofNullable(row.get(c.fact()))
                                .ifPresent(v -> tagged.put(c.tag().toUpperCase(Locale.ROOT), new RowBlock.Said(v, 0)));
                    }
                    return tagged;
                })
                .toList();
    }

    /** What rows by tag say, by fact; what goes on below is joined. */
    public List<Map<String, String>> said(List<Map<String, RowBlock.Said>> tagged) {
        List<Map<String, String>> rows = new ArrayList<>();
        for (Map<String, RowBlock.Said> row : tagged) {
            Map<String, String> said = new LinkedHashMap<>();
            for (Column c : columns) {
                String value = Optional.ofNullable(row.get(c.tag().toUpperCase(Locale.ROOT)))
                        .map(RowBlock.Said::text)
                        .orElse("");
                if (!value.isBlank()) said.put(c.fact(), value);
            }
            rows.add(said);
        }
        return lines > 1 ? joined(rows, labels(rows)) : rows;
    }

    /** How the rows stand on this sheet, in its units. O(primitives) where it has to be drawn. */
    public RowBlock.Shape shape(DxfDrawing drawing, String layer) {
        Zones zones = Corner.zones(drawing);
        double mm = zones.millimetre();
        return new RowBlock.Shape(
                block,
                columns.stream()
                        .map(c -> new RowBlock.Column(c.tag(), c.heading(), c.width() * mm))
                        .toList(),
                rowHeight * mm,
                textHeight * mm,
                upwards,
                zones.sheet().isEmpty() ? 0 : zones.sheet().maxX() - fromRight * mm,
                zones.sheet().isEmpty() ? 0 : zones.sheet().minY() + fromBottom * mm,
                layer);
    }
}
