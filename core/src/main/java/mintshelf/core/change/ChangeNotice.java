package mintshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/**
 * The announcement of a change: what was changed, from which revision to which, why, what becomes of the old ones, who decided. Laid out
 * as A4 pages (210 by 297 mm) of text and lines, which a writer of PDF takes; tables and documents are written of the same data.
 *
 * @param date in words
 * @param effective from when on it counts, in words; empty with the release
 * @param requests a line for each request that it answers
 * @param cost what the old ones cost, as far as it is known; empty where nothing is
 * @param unknown how many of the statements about old ones lack something
 * @param decided a sentence for each sign-off
 * @param pictures of sheets that changed, as many as find room
 */
public record ChangeNotice(
        String number,
        String order,
        String title,
        String reason,
        String date,
        String effective,
        List<String> requests,
        List<Row> rows,
        List<Old> old,
        String cost,
        int unknown,
        List<String> decided,
        List<Picture> pictures) {
    /** How large a picture of a sheet is, in millimetres. */
    public static final double WIDE = 80;

    public static final double HIGH = 56;

    public ChangeNotice {
        requests = List.copyOf(requests);
        rows = List.copyOf(rows);
        old = List.copyOf(old);
        decided = List.copyOf(decided);
        pictures = List.copyOf(pictures);
    }

    /**
     * What changed on a sheet.
     *
     * @param says in words: "A → B: 4 differences"
     * @param drawn within {@link #WIDE} and {@link #HIGH}, as {@link DifferencePicture} gives it
     */
    public record Picture(String number, String says, List<Primitive> drawn) {}

    /**
     * A changed document; {@code from} is a dash for one that is released for the first time, {@code to} for one that is withdrawn.
     *
     * @param what in words: "is revised"
     * @param variant those of its variants that the line is about, and what changed of each; empty for neither
     * @param parts what changed of what it consists of; empty where nothing did
     */
    public record Row(
            String number,
            String title,
            String what,
            String from,
            String to,
            int version,
            String reason,
            String hash,
            String variant,
            String parts) {
        /** What stands under the title: why, and what it does to parts and variants. */
        List<String> lines(int letters) {
            List<String> lines = new ArrayList<>(PaperLayout.wrap(reason, letters));
            if (!parts.isEmpty()) lines.addAll(PaperLayout.wrap("Parts: " + parts, letters));
            if (!variant.isEmpty()) lines.addAll(PaperLayout.wrap("Variants: " + variant, letters));
            return lines;
        }
    }

    /** What becomes of the old ones of a document at one place. */
    public record Old(String number, String place, String quantity, String what, String cost, String note) {
        /** As in "in stock: 6 use as is, 792.00 EUR". */
        String words() {
            if (quantity.equals("0")) return place + ": none" + (note.isEmpty() ? "" : " (" + note + ")");
            return place + ": " + (quantity.isEmpty() ? "?" : quantity) + " "
                    + (what.isEmpty() ? "not decided" : what) + (cost.isEmpty() ? "" : ", " + cost)
                    + (note.isEmpty() ? "" : " (" + note + ")");
        }
    }

    /** What own words of a form may name. */
    public Map<String, String> fields() {
        return Map.of(
                "notice", number, "order", order, "title", title, "date", date, "effective", effective, "cost", cost);
    }

    /** The pages, in the house's form. O(rows). */
    public List<Scene> pages(NoticeForm form) {
        PaperLayout layout = new PaperLayout();
        for (NoticeForm.Block block : form.blocks()) {
            switch (block.show()) {
                case HEAD -> head(layout);
                case REASON -> {
                    layout.paragraph(reason, 2.8, 92);
                    layout.down(2);
                }
                case REQUESTS -> {
                    requests.forEach(r -> layout.paragraph("Answers " + r, 2.6, 96));
                    layout.down(2);
                }
                case LINES -> lines(layout);
                case PICTURES -> pictures(layout);
                case OLD -> old(layout);
                case DECIDED -> {
                    decided.forEach(line -> layout.paragraph(line, 2.6, 96));
                    layout.down(2);
                }
                case TEXT -> {
                    layout.paragraph(NoticeForm.filled(block.text(), fields()), 2.6, 96);
                    layout.down(2);
                }
            }
        }
        return layout.pages(number);
    }

    private void head(PaperLayout layout) {
        layout.need(30, () -> {});
        layout.text(PaperLayout.LEFT, 6, "Change notice " + number);
        layout.down(9);
        layout.text(PaperLayout.LEFT, 3.6, title);
        layout.down(7);
        layout.text(
                PaperLayout.LEFT,
                2.6,
                "By order " + order + ", " + date + (effective.isEmpty() ? "" : ", effective " + effective));
        layout.down(8);
    }

    private void lines(PaperLayout layout) {
        layout.down(2);
        layout.need(24, () -> {});
        heading(layout);
        for (Row row : rows) {
            List<String> why = row.lines(36);
            List<String> named = PaperLayout.wrap(row.title(), 34);
            layout.need(5.0 * Math.max(why.size(), named.size()) + 5, () -> heading(layout));
            layout.text(PaperLayout.LEFT, 2.6, row.number());
            layout.text(122, 2.6, row.from() + " → " + row.to());
            layout.text(142, 2.6, row.to().equals("–") ? "withdrawn" : "v" + row.version());
            layout.text(165, 1.8, row.hash().substring(0, 16));
            for (int i = 0; i < Math.max(why.size(), named.size()); i++) {
                if (i < named.size()) layout.text(58, 2.6, named.get(i));
                layout.down(5);
                if (i < why.size()) layout.text(58, 2.2, why.get(i));
            }
            layout.down(3);
            layout.rule(PaperLayout.HAIR);
            layout.down(5);
        }
        layout.down(5);
    }

    /** Two beside each other. */
    private void pictures(PaperLayout layout) {
        for (int i = 0; i < pictures.size(); i += 2) {
            layout.need(HIGH + 12, () -> {});
            layout.down(HIGH);
            for (int k = i; k < Math.min(i + 2, pictures.size()); k++) {
                layout.picture(
                        PaperLayout.LEFT + (k - i) * (WIDE + 8), pictures.get(k).drawn());
            }
            layout.down(4);
            for (int k = i; k < Math.min(i + 2, pictures.size()); k++) {
                Picture one = pictures.get(k);
                layout.text(PaperLayout.LEFT + (k - i) * (WIDE + 8), 2.2, one.number() + " " + one.says());
            }
            layout.down(8);
        }
    }

    private void old(PaperLayout layout) {
        if (old.isEmpty()) return;
        layout.need(16, () -> {});
        layout.text(PaperLayout.LEFT, 3, "What becomes of the old ones");
        layout.down(6);
        String before = "";
        for (Old one : old) {
            List<String> words = PaperLayout.wrap(one.words(), 74);
            layout.need(5.0 * words.size(), () -> {});
            if (!one.number().equals(before)) layout.text(PaperLayout.LEFT, 2.4, one.number());
            before = one.number();
            for (String line : words) {
                layout.text(58, 2.4, line);
                layout.down(5);
            }
        }
        if (!cost.isEmpty() || unknown > 0) {
            layout.paragraph(
                    (cost.isEmpty() ? "" : "Known cost " + cost + ". ")
                            + (unknown == 0
                                    ? ""
                                    : unknown == 1
                                            ? "Of one place something is unknown."
                                            : "Of " + unknown + " places something is unknown."),
                    2.6,
                    96);
        }
        layout.down(5);
    }

    private static void heading(PaperLayout layout) {
        layout.text(PaperLayout.LEFT, 2, "Number");
        layout.text(58, 2, "Title, and why");
        layout.text(122, 2, "Revision");
        layout.text(142, 2, "Version");
        layout.text(165, 2, "SHA-256 begins");
        layout.down(2);
        layout.rule(PaperLayout.INK);
        layout.down(6);
    }
}
