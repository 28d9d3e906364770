package mintshelf.core.change;

import java.util.List;
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
        List<String> decided) {
    public ChangeNotice {
        requests = List.copyOf(requests);
        rows = List.copyOf(rows);
        old = List.copyOf(old);
        decided = List.copyOf(decided);
    }

    /**
     * A changed document; {@code from} is a dash for one that is released for the first time, {@code to} for one that is withdrawn.
     *
     * @param what in words: "is revised"
     * @param variant which one of it; empty where it has none
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
            String variant) {}

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

    /** The pages. O(rows). */
    public List<Scene> pages() {
        PaperLayout layout = new PaperLayout();
        layout.text(PaperLayout.LEFT, 6, "Change notice " + number);
        layout.down(9);
        layout.text(PaperLayout.LEFT, 3.6, title);
        layout.down(7);
        layout.text(
                PaperLayout.LEFT,
                2.6,
                "By order " + order + ", " + date + (effective.isEmpty() ? "" : ", effective " + effective));
        layout.down(8);
        layout.paragraph(reason, 2.8, 92);
        requests.forEach(r -> layout.paragraph("Answers " + r, 2.6, 96));
        layout.down(4);
        heading(layout);
        for (Row row : rows) {
            List<String> why = PaperLayout.wrap(row.reason(), 40);
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
        old(layout);
        decided.forEach(line -> layout.paragraph(line, 2.6, 96));
        return layout.pages(number);
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
