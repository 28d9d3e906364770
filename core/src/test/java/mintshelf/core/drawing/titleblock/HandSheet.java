package mintshelf.core.drawing.titleblock;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.Dxf;

/** Makes A3 sheets with a revision table of lines and texts, for tests. */
public final class HandSheet {
    private final List<String> entities = new ArrayList<>();
    private int handle = 0x100;

    private String handle() {
        return "5 " + Integer.toHexString(handle++).toUpperCase(java.util.Locale.ROOT);
    }

    public HandSheet line(double x1, double y1, double x2, double y2) {
        entities.addAll(List.of("0 LINE", handle(), "8 0", "10 " + x1, "20 " + y1, "11 " + x2, "21 " + y2));
        return this;
    }

    public HandSheet box(double x1, double y1, double x2, double y2) {
        entities.addAll(List.of("0 LWPOLYLINE", handle(), "8 0", "90 4", "70 1", "10 " + x1, "20 " + y1));
        entities.addAll(List.of("10 " + x2, "20 " + y1, "10 " + x2, "20 " + y2, "10 " + x1, "20 " + y2));
        return this;
    }

    public HandSheet text(double x, double y, String said) {
        entities.addAll(List.of("0 TEXT", handle(), "8 0", "10 " + x, "20 " + y, "40 2.5", "1 " + said));
        return this;
    }

    /** Headings lowest and rows above, the first one next to them; 8 mm a row. */
    public HandSheet upwards(double x, double y, double[] widths, List<String> headings, List<List<String>> rows) {
        return table(x, y, widths, headings, rows, 8);
    }

    /** Headings on top and rows below, the first one next to them. */
    public HandSheet downwards(double x, double y, double[] widths, List<String> headings, List<List<String>> rows) {
        return table(x, y, widths, headings, rows, -8);
    }

    private HandSheet table(
            double x, double y, double[] widths, List<String> headings, List<List<String>> rows, double step) {
        double width = java.util.Arrays.stream(widths).sum();
        for (int i = 0; i <= rows.size() + 1; i++) line(x, y + i * step, x + width, y + i * step);
        double at = x;
        for (int c = 0; c <= widths.length; c++) {
            line(at, y, at, y + (rows.size() + 1) * step);
            if (c < widths.length) at += widths[c];
        }
        for (int r = -1; r < rows.size(); r++) {
            List<String> cells = r < 0 ? headings : rows.get(r);
            double foot = step > 0 ? y + (r + 1) * step : y + (r + 2) * step;
            at = x;
            for (int c = 0; c < cells.size(); c++) {
                if (!cells.get(c).isEmpty()) text(at + 1, foot + 2, cells.get(c));
                at += widths[c];
            }
        }
        return this;
    }

    /** The sheet with its frame. */
    public byte[] bytes() {
        List<String> tags = new ArrayList<>(List.of("0 SECTION", "2 HEADER", "9 $ACADVER", "1 AC1027"));
        tags.addAll(List.of("9 $HANDSEED", "5 FFF", "0 ENDSEC", "0 SECTION", "2 TABLES", "0 TABLE", "2 BLOCK_RECORD"));
        tags.addAll(List.of("5 1", "100 AcDbSymbolTable", "70 1", "0 BLOCK_RECORD", "5 1F", "330 1"));
        tags.addAll(List.of("100 AcDbSymbolTableRecord", "100 AcDbBlockTableRecord", "2 *Model_Space", "0 ENDTAB"));
        tags.addAll(List.of("0 ENDSEC", "0 SECTION", "2 BLOCKS", "0 ENDSEC", "0 SECTION", "2 ENTITIES"));
        tags.addAll(List.of("0 LWPOLYLINE", "5 20", "8 0", "90 4", "70 1", "10 10", "20 10", "10 410", "20 10"));
        tags.addAll(List.of("10 410", "20 287", "10 10", "20 287"));
        tags.addAll(entities);
        tags.addAll(List.of("0 ENDSEC", "0 EOF"));
        return Dxf.of("\r\n", UTF_8, tags.toArray(String[]::new));
    }
}
