package mintshelf.standin;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A made-up sheet of the years before there was a shelf: A4 with a title block, and above it a revision table that somebody drew of lines and
 * texts, its heading lowest.
 */
public final class OldSheet {
    private static final double[] WIDTHS = {12, 84, 26, 28, 28};
    private static final String[] HEADINGS = {"REV.", "DESCRIPTION", "DATE", "DRAWN", "CHECKED"};
    private static final double LEFT = 22;
    private static final double FOOT = 62;
    private static final double ROW = 7;

    private final Map<String, String> block = new LinkedHashMap<>();
    private final List<List<String>> rows = new ArrayList<>();
    private final StringBuilder out = new StringBuilder();
    private final int seed;
    private int handle = 0x40;

    /** @param seed what the part looks like */
    public OldSheet(String number, String title, String revision, int seed) {
        block.put("NUMBER", number);
        block.put("TITLE", title);
        block.put("REV", revision);
        block.put("MATERIAL", "1.4404");
        block.put("SCALE", "1:1");
        block.put("STATUS", "");
        block.put("APPROVED_BY", "");
        this.seed = seed;
    }

    /** A row of the table, the oldest revision first. */
    public OldSheet revised(String revision, String description, String date, String drawn, String checked) {
        rows.add(List.of(revision, description, date, drawn, checked));
        return this;
    }

    private void tags(Object... tags) {
        for (int i = 0; i < tags.length; i += 2) {
            out.append(tags[i]).append('\n').append(tags[i + 1]).append('\n');
        }
    }

    private void entity(String type) {
        tags(0, type, 5, Integer.toHexString(handle++).toUpperCase(java.util.Locale.ROOT), 8, 0);
    }

    private void line(double x1, double y1, double x2, double y2) {
        entity("LINE");
        tags(10, x1, 20, y1, 11, x2, 21, y2);
    }

    private void text(double x, double y, String said) {
        entity("TEXT");
        tags(10, x, 20, y, 40, 2.5, 1, said);
    }

    /** The sheet as an exchange drawing. */
    public byte[] bytes() {
        out.setLength(0);
        tags(0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1015", 9, "$HANDSEED", 5, "FFF", 0, "ENDSEC");
        tags(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "BLOCK_RECORD", 5, "1", 100, "AcDbSymbolTable", 70, 2);
        tags(0, "BLOCK_RECORD", 5, "1F", 330, "1", 100, "AcDbSymbolTableRecord", 100, "AcDbBlockTableRecord");
        tags(2, "*Model_Space", 0, "BLOCK_RECORD", 5, "2F", 330, "1", 100, "AcDbSymbolTableRecord");
        tags(100, "AcDbBlockTableRecord", 2, "TITLE", 0, "ENDTAB", 0, "ENDSEC");
        tags(0, "SECTION", 2, "BLOCKS", 0, "BLOCK", 5, "30", 8, 0, 2, "TITLE", 70, 2, 10, 0, 20, 0);
        tags(0, "ENDBLK", 5, "31", 8, 0, 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES");
        entity("LWPOLYLINE");
        tags(90, 4, 70, 1, 10, 0, 20, 0, 10, 210, 20, 0, 10, 210, 20, 297, 10, 0, 20, 297);
        entity("LWPOLYLINE");
        tags(90, 4, 70, 1, 10, 20, 20, 10, 10, 200, 20, 10, 10, 200, 20, 287, 10, 20, 20, 287);
        part();
        titleBlock();
        table();
        tags(0, "ENDSEC", 0, "EOF");
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    private void part() {
        double width = 70 + seed % 60;
        double height = 40 + seed % 50;
        double x = 60;
        double y = 150;
        line(x, y, x + width, y);
        line(x + width, y, x + width, y + height);
        line(x + width, y + height, x, y + height);
        line(x, y + height, x, y);
        entity("CIRCLE");
        tags(10, x + width / 2, 20, y + height / 2, 40, 6 + seed % 9);
    }

    private void titleBlock() {
        entity("INSERT");
        tags(66, 1, 2, "TITLE", 10, 22, 20, 12);
        int at = 0;
        for (Map.Entry<String, String> field : block.entrySet()) {
            entity("ATTRIB");
            tags(10, 24 + at % 2 * 90, 20, 50 - at / 2 * 11, 40, 3.5, 1, field.getValue(), 2, field.getKey(), 70, 0);
            at++;
        }
        entity("SEQEND");
        line(22, 60, 200, 60);
    }

    private void table() {
        if (rows.isEmpty()) return;
        double width = 0;
        for (double w : WIDTHS) width += w;
        double top = FOOT + (rows.size() + 1) * ROW;
        for (int i = 0; i <= rows.size() + 1; i++) line(LEFT, FOOT + i * ROW, LEFT + width, FOOT + i * ROW);
        double x = LEFT;
        for (int c = 0; c <= WIDTHS.length; c++) {
            line(x, FOOT, x, top);
            if (c == WIDTHS.length) break;
            text(x + 1, FOOT + 2, HEADINGS[c]);
            for (int r = 0; r < rows.size(); r++) {
                String said = rows.get(r).get(c);
                if (!said.isEmpty()) text(x + 1, FOOT + (r + 1) * ROW + 2, said);
            }
            x += WIDTHS[c];
        }
    }
}
