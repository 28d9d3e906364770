package mintshelf.app.page.sheetmap;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.ground.Refused;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;

/** Reads a sheet map from the fields of its form; rows that say nothing are left out. */
final class SheetMapForm {
    private static final int MOST_ROWS = 120;
    private static final Pattern PLACE = Pattern.compile(
            "\\s*(\\d{1,4}(?:\\.\\d{1,3})?)[ ,]+(\\d{1,4}(?:\\.\\d{1,3})?)[ ,x]+(\\d{1,4}(?:\\.\\d{1,3})?)[ ,x]+(\\d{1,4}(?:\\.\\d{1,3})?)\\s*");

    private final Map<String, String> form;

    private SheetMapForm(Map<String, String> form) {
        this.form = form;
    }

    static SheetMap read(Map<String, String> form) {
        SheetMapForm reader = new SheetMapForm(form);
        return new SheetMap(
                reader.text("name"),
                reader.text("block"),
                reader.text("format"),
                reader.fields(),
                form.containsKey("revisions") ? Optional.of(reader.revisions()) : Optional.empty());
    }

    /** A place as the form shows it: "190, 10, 60 x 10". */
    static String shown(SheetMap.Spot spot) {
        return number(spot.x()) + ", " + number(spot.y()) + ", " + number(spot.width()) + " x " + number(spot.height());
    }

    static String number(double n) {
        return n == Math.rint(n) ? Long.toString((long) n) : Double.toString(n);
    }

    private String text(String name) {
        String value = form.getOrDefault(name, "").strip();
        if (value.length() > 120) throw wrong("“" + value.substring(0, 20) + "…” is too long.");
        return value;
    }

    private static Refused wrong(String reason) {
        return Refused.because("sheet_map.wrong", reason, "Nothing was changed.");
    }

    private double millimetres(String name, String label) {
        String value = text(name).replace(',', '.');
        if (!value.matches("\\d{1,4}(\\.\\d{1,3})?")) throw wrong(label + " “" + value + "” is no length in mm.");
        return Double.parseDouble(value);
    }

    private List<SheetMap.Field> fields() {
        List<SheetMap.Field> fields = new ArrayList<>();
        for (int i = 0; i < MOST_ROWS && form.containsKey("fact." + i); i++) {
            if (text("fact." + i).isEmpty()
                    && text("tag." + i).isEmpty()
                    && text("spot." + i).isEmpty()) continue;
            fields.add(new SheetMap.Field(
                    text("tag." + i),
                    text("fact." + i),
                    text("way." + i).equals("WRITTEN") ? SheetMap.Way.WRITTEN : SheetMap.Way.READ,
                    spot(text("spot." + i))));
        }
        return fields;
    }

    private static Optional<SheetMap.Spot> spot(String text) {
        if (text.isEmpty()) return Optional.empty();
        Matcher m = PLACE.matcher(text);
        if (!m.matches()) throw wrong("“" + text + "” is no place: write it as 190, 10, 60 x 10.");
        return Optional.of(new SheetMap.Spot(
                Double.parseDouble(m.group(1)),
                Double.parseDouble(m.group(2)),
                Double.parseDouble(m.group(3)),
                Double.parseDouble(m.group(4))));
    }

    private RevisionBlock revisions() {
        List<RevisionBlock.Column> columns = new ArrayList<>();
        for (int i = 0; i < MOST_ROWS && form.containsKey("cfact." + i); i++) {
            if (text("cfact." + i).isEmpty() || text("ctag." + i).isEmpty()) continue;
            columns.add(new RevisionBlock.Column(
                    text("ctag." + i),
                    text("cfact." + i),
                    text("chead." + i),
                    millimetres("cwidth." + i, "The width")));
        }
        String most = text("most");
        if (!most.matches("\\d{1,3}")) throw wrong("“" + most + "” is no number of rows.");
        String lines = form.getOrDefault("lines", "1").strip();
        if (!lines.matches("\\d{1,2}")) throw wrong("“" + lines + "” is no number of rows.");
        return new RevisionBlock(
                text("rowblock"),
                columns,
                Integer.parseInt(most),
                text("order").equals("up"),
                form.containsKey("releasedonly"),
                form.containsKey("drawn"),
                millimetres("fromright", "The place"),
                millimetres("frombottom", "The place"),
                millimetres("rowheight", "The height"),
                millimetres("textheight", "The height"),
                Integer.parseInt(lines));
    }
}
