package mintshelf.core.drawing.compare;

import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/** The fields of a sheet's frame (ISO 5457:1999, clause 4.4): 50 mm from the middle on, letters downwards without I and O, numbers to the right. */
public final class Zones {
    /** A0 to A4: longer side, shorter side, fields along each. */
    private static final double[][] FORMATS = {
        {1189, 841, 24, 16}, {841, 594, 16, 12}, {594, 420, 12, 8}, {420, 297, 8, 6}, {297, 210, 6, 4}
    };

    private static final String LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ";

    private final Box sheet;
    private final int columns;
    private final int rows;
    private final double field;
    private final String format;

    private Zones(Box sheet, int columns, int rows, double field, String format) {
        this.sheet = sheet;
        this.columns = columns;
        this.rows = rows;
        this.field = field;
        this.format = format;
    }

    /** The zones of a drawing whose extents are a sheet of A0 to A4, in millimetres or inches; else none. */
    public static Zones of(Box extents) {
        if (!extents.isEmpty()) {
            double longer = Math.max(extents.width(), extents.height());
            double shorter = Math.min(extents.width(), extents.height());
            for (int i = 0; i < FORMATS.length; i++) {
                double[] f = FORMATS[i];
                for (double unit : new double[] {1, 1 / 25.4}) {
                    if (Math.abs(longer - f[0] * unit) > 1.5 * unit || Math.abs(shorter - f[1] * unit) > 1.5 * unit)
                        continue;
                    boolean wide = extents.width() >= extents.height();
                    return new Zones(
                            extents, (int) (wide ? f[2] : f[3]), (int) (wide ? f[3] : f[2]), 50 * unit, "A" + i);
                }
            }
        }
        return new Zones(extents, 0, 0, 1, "");
    }

    /** The zones of a scene's sheet: of all that is drawn, else of the largest closed rectangle that is a format. O(primitives). */
    public static Zones of(Scene scene) {
        Box extents = scene.extents();
        Zones best = of(extents);
        if (!best.format.isEmpty()) return best;
        for (Primitive p : scene.primitives()) {
            if (!(p instanceof Primitive.Polyline line) || line.points().length < 8) continue;
            Zones here = of(p.box());
            if (here.format.isEmpty()) continue;
            if (best.format.isEmpty() || here.sheet.width() > best.sheet.width()) best = here;
        }
        return best;
    }

    /** The trimmed sheet, or all that is drawn where that is none. */
    public Box sheet() {
        return sheet;
    }

    /** How long a millimetre of the sheet is in its units: 1, or 1/25.4 on a sheet in inches. */
    public double millimetre() {
        return columns == 0 ? 1 : field / 50;
    }

    /** The sheet's format, such as A3; empty where it is none. */
    public String format() {
        return format;
    }

    /** The zone of a point, such as C4; empty where the drawing is no sheet. */
    public String at(double x, double y) {
        if (columns == 0) return "";
        int column = (int) Math.floor((x - sheet.middleX()) / field) + columns / 2;
        int row = (int) Math.floor((sheet.middleY() - y) / field) + rows / 2;
        return LETTERS.charAt(Math.max(0, Math.min(rows - 1, row)))
                + Integer.toString(Math.max(0, Math.min(columns - 1, column)) + 1);
    }

    /** The box of a zone; empty for a word that is none. */
    public Box box(String zone) {
        if (columns == 0 || zone.length() < 2 || !zone.substring(1).matches("\\d{1,2}")) return Box.EMPTY;
        int row = LETTERS.indexOf(zone.charAt(0));
        int column = Integer.parseInt(zone.substring(1)) - 1;
        if (row < 0 || row >= rows || column < 0 || column >= columns) return Box.EMPTY;
        double x = sheet.middleX() + (column - columns / 2) * field;
        double y = sheet.middleY() - (row - rows / 2) * field;
        return new Box(x, y - field, x + field, y);
    }
}
