package mintshelf.core.redline.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.pdf.PdfNotes;
import mintshelf.core.drawing.pdf.PdfNotes.Form;
import mintshelf.core.drawing.pdf.PdfNotes.Found;
import mintshelf.core.drawing.pdf.PdfNotes.Note;
import mintshelf.core.drawing.pdf.PdfWhere;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.MarkPaint;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import mintshelf.core.redline.exchange.WebAnnotations.Answer;
import mintshelf.core.redline.exchange.WebAnnotations.Brought;
import mintshelf.core.redline.exchange.WebAnnotations.New;

/** Remarks as annotations of a PDF, which other readers show and let answer, and what they wrote, read back by the names of both. */
public final class PdfAnnotations {
    /** Bytes of a file that is read. */
    public static final int LARGEST = 5 << 20;

    private static final int NAME = 120;
    private static final int REPLY = 2000;

    private PdfAnnotations() {}

    /**
     * Lays remarks over a page.
     *
     * @param mm a millimetre of the sheet in its units
     * @param fonts TrueType fonts, the sheet's first
     */
    public static byte[] write(byte[] pdf, List<Placed> all, PdfWhere where, double mm, List<byte[]> fonts) {
        return PdfNotes.write(pdf, all.stream().map(p -> note(p, mm)).toList(), where, fonts);
    }

    private static Note note(Placed placed, double mm) {
        Remark remark = placed.remark();
        Mark mark = placed.followed().mark();
        List<double[]> strokes = new ArrayList<>();
        for (List<Point> stroke : mark.strokes()) {
            double[] places = new double[2 * stroke.size()];
            for (int i = 0; i < stroke.size(); i++) {
                places[2 * i] = stroke.get(i).x();
                places[2 * i + 1] = stroke.get(i).y();
            }
            strokes.add(places);
        }
        List<String> words = new ArrayList<>();
        for (String one : List.of(mark.says(), remark.line(), remark.description())) if (!one.isEmpty()) words.add(one);
        return new Note(
                form(mark.tool()),
                strokes,
                remark.uid(),
                remark.by(),
                remark.number() + ", " + remark.kind().words() + ", "
                        + remark.state().words(),
                String.join("\n", words),
                remark.at(),
                mark.look().colour().rgb(),
                MarkPaint.paint(remark, placed.followed(), mm),
                remark.replies().stream()
                        .map(r -> new PdfNotes.Reply(
                                r.uid(),
                                r.name(),
                                r.says().isEmpty()
                                        ? r.state().map(s -> "Set " + s.words()).orElse("")
                                        : r.says(),
                                r.at()))
                        .toList());
    }

    private static Form form(Tool tool) {
        return switch (tool) {
            case CLOUD -> Form.CLOUD;
            case ARROW_NOTE -> Form.ARROW;
            case NOTE -> Form.POINT;
            case SIZE -> Form.BETWEEN;
            case INK -> Form.INK;
            case HIGHLIGHT -> Form.WASH;
            case STAMP -> Form.WORD;
        };
    }

    /**
     * Reads what is annotated on a page. What was given from here keeps its names; what others added becomes a mark of the nearest
     * kind.
     *
     * @param extents of what is drawn there, {@code scale} of its views
     */
    public static Outcome<Brought> read(byte[] pdf, PdfWhere where, Box extents, double scale, Look look) {
        if (pdf.length > LARGEST) {
            return Outcome.refused(
                    "annotations.large",
                    "The file has more than 5 MB.",
                    "Give it without the sheet; nothing was taken in.");
        }
        Outcome<List<Found>> read = PdfNotes.read(pdf, where, WebAnnotations.MOST);
        if (!(read instanceof Outcome.Granted<List<Found>> found))
            return Outcome.refused(read.refusal().orElseThrow());
        Brought brought = new Brought(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (Found one : found.value()) take(one, extents, scale, look, brought);
        return Outcome.granted(brought);
    }

    private static void take(Found one, Box sheet, double scale, Look look, Brought brought) {
        String by = Texts.shorten(Texts.line(one.by()), NAME);
        String who = by.isEmpty() ? "Somebody outside" : by;
        String words = Texts.lines(one.says());
        if (one.lost()) {
            brought.unread().add("A reply says nothing, or to nothing.");
            return;
        }
        if (one.answers().isPresent()) {
            // What a reader says of a state stands beside the words, and says nothing by itself.
            if (!words.isBlank()) {
                String says = Texts.shorten(words, REPLY);
                brought.answers().add(new Answer(one.uid(), one.answers().get(), who, says, one.at()));
            }
            return;
        }
        Optional<Mark> mark = one.form().flatMap(form -> mark(form, one.strokes(), look, scale, sheet));
        if (mark.isEmpty()) {
            String which = words.isBlank() ? one.kind() : Texts.line(words);
            brought.unread().add("“" + Texts.shorten(which, 40) + "” marks nothing that lies on the sheet.");
            return;
        }
        String[] parts = words.split("\n", 2);
        brought.remarks()
                .add(new New(
                        one.uid(),
                        who,
                        Remark.Kind.NOTE,
                        Texts.shorten(Texts.line(parts[0]), Remark.LONGEST_LINE),
                        parts.length > 1 ? Texts.shorten(parts[1], Remark.LONGEST_DESCRIPTION) : "",
                        mark.get(),
                        one.at()));
    }

    private static Optional<Mark> mark(Form form, List<double[]> places, Look look, double scale, Box sheet) {
        Tool tool = switch (form) {
            case CLOUD -> Tool.CLOUD;
            case ARROW, BETWEEN -> Tool.ARROW_NOTE;
            case INK -> Tool.INK;
            case WASH -> Tool.HIGHLIGHT;
            case POINT, WORD -> Tool.NOTE;
        };
        List<List<Point>> strokes = new ArrayList<>();
        for (double[] stroke : places) {
            List<Point> points = new ArrayList<>();
            for (int i = 0; i + 1 < stroke.length; i += 2) points.add(new Point(stroke[i], stroke[i + 1]));
            strokes.add(points);
        }
        return Mark.read(tool, strokes, "", look, scale, sheet) instanceof Outcome.Granted<Mark> mark
                ? Optional.of(mark.value())
                : Optional.empty();
    }
}
