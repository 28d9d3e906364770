package mintshelf.core.drawing.pdf;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Calendar;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TimeZone;
import java.util.UUID;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.pdf.PdfWriter.Appearances;
import mintshelf.core.drawing.pdf.PdfWriter.Fit;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.graphics.color.PDColor;
import org.apache.pdfbox.pdmodel.graphics.color.PDDeviceRGB;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotation;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationFreeText;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationHighlight;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationInk;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationLine;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationMarkup;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationSquare;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationText;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAppearanceDictionary;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAppearanceStream;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDBorderEffectDictionary;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDBorderStyleDictionary;

/**
 * Annotations over a page of a PDF (ISO 32000-1, 12.5.6), which other readers show, list and let
 * answer; and what they wrote, read back. Each is known by its name (12.5.2, NM). Places are in units of the sheet. O(annotations).
 */
public final class PdfNotes {
    private static final float LINE = 1.2f;
    private static final String UUID_FORM = "[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}";
    private static final int DEEPEST = 40;
    /** Drawn by readers beside others, or no word of anybody. */
    private static final Set<String> SILENT = Set.of("Popup", "Link", "Widget");

    private static final COSName ANSWERS = COSName.getPDFName("IRT");

    private PdfNotes() {}

    /** What a note is drawn as. */
    public enum Form {
        /** Round a box, which its two corners give. */
        CLOUD,
        /** From its second point to its first, where an arrow is. */
        ARROW,
        /** Between its first two points, with an arrow at each. */
        BETWEEN,
        INK,
        /** Over a box. */
        WASH,
        /** At a point. */
        POINT,
        /** A word at a point. */
        WORD
    }

    /**
     * A note to be written.
     *
     * @param strokes x and y of its points, a stroke each
     * @param uid its name
     * @param picture how it looks, in units of the sheet
     */
    public record Note(
            Form form,
            List<double[]> strokes,
            String uid,
            String by,
            String subject,
            String says,
            Instant at,
            int rgb,
            List<Primitive> picture,
            List<Reply> replies) {}

    /** An answer in its thread. */
    public record Reply(String uid, String by, String says, Instant at) {}

    /**
     * A note that was found.
     *
     * @param form of those that have a picture here the nearest; empty for what has none
     * @param uid its name, or one made of it or its text: the same file read twice brings the same
     * @param answers uid of what its thread began with; empty for what answers nothing
     * @param lost whether it answers, and its thread has no beginning
     * @param kind as the standard calls it
     */
    public record Found(
            Optional<Form> form,
            List<double[]> strokes,
            String uid,
            String by,
            String says,
            Optional<Instant> at,
            Optional<String> answers,
            boolean lost,
            String kind) {}

    /**
     * Lays notes over a page, beside what is annotated there already.
     *
     * @param fonts TrueType fonts, the sheet's first
     */
    public static byte[] write(byte[] pdf, List<Note> all, PdfWhere where, List<byte[]> fonts) {
        Fit fit = where.fit();
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDPage page = document.getPage(where.index());
            List<PDAnnotation> out = new ArrayList<>(page.getAnnotations());
            Appearances pictures = new Appearances(document, fonts, fit);
            for (Note one : all) {
                PDAnnotationMarkup mark = mark(one, fit);
                mark.setAnnotationName(one.uid());
                mark.setTitlePopup(one.by());
                mark.setSubject(one.subject());
                mark.setContents(one.says());
                mark.setCreationDate(when(one.at()));
                mark.setModifiedDate(when(one.at()));
                mark.setColor(colour(one.rgb()));
                mark.setPrinted(true);
                PDAppearanceStream picture = pictures.of(one.picture());
                PDAppearanceDictionary looks = new PDAppearanceDictionary();
                looks.setNormalAppearance(picture);
                mark.setAppearance(looks);
                // Its picture lies where it was painted: with its number and its line it is larger than what it marks.
                mark.setRectangle(picture.getBBox());
                out.add(mark);
                for (Reply reply : one.replies()) out.add(reply(reply, mark));
            }
            page.setAnnotations(out);
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("The page cannot be read", e);
        }
    }

    private static PDColor colour(int rgb) {
        return new PDColor(
                new float[] {(rgb >> 16 & 255) / 255f, (rgb >> 8 & 255) / 255f, (rgb & 255) / 255f},
                PDDeviceRGB.INSTANCE);
    }

    private static Calendar when(Instant at) {
        Calendar when = Calendar.getInstance(TimeZone.getTimeZone("UTC"), Locale.ROOT);
        when.setTimeInMillis(at.toEpochMilli());
        return when;
    }

    private static PDAnnotationText reply(Reply reply, PDAnnotationMarkup to) {
        PDAnnotationText text = new PDAnnotationText();
        text.setAnnotationName(reply.uid());
        text.setInReplyTo(to);
        text.setTitlePopup(reply.by());
        text.setContents(reply.says());
        text.setCreationDate(when(reply.at()));
        text.setModifiedDate(when(reply.at()));
        text.setRectangle(to.getRectangle());
        text.setPrinted(true);
        // Readers list it under what it answers; on the sheet it would hide that.
        text.setHidden(true);
        return text;
    }

    private static PDAnnotationMarkup mark(Note note, Fit fit) {
        List<float[]> strokes = new ArrayList<>();
        for (double[] stroke : note.strokes()) {
            float[] places = new float[stroke.length];
            for (int i = 0; i + 1 < stroke.length; i += 2) {
                places[i] = fit.x(stroke[i]);
                places[i + 1] = fit.y(stroke[i + 1]);
            }
            strokes.add(places);
        }
        float[] first = strokes.get(0);
        return switch (note.form()) {
            case CLOUD -> {
                PDAnnotationSquare cloud = new PDAnnotationSquare();
                PDBorderEffectDictionary effect = new PDBorderEffectDictionary();
                effect.setStyle(PDBorderEffectDictionary.STYLE_CLOUDY);
                effect.setIntensity(1);
                cloud.setBorderEffect(effect);
                cloud.setBorderStyle(border());
                yield cloud;
            }
            case WASH -> {
                PDAnnotationHighlight wash = new PDAnnotationHighlight();
                float x1 = Math.min(first[0], first[2]);
                float x2 = Math.max(first[0], first[2]);
                float y1 = Math.min(first[1], first[3]);
                float y2 = Math.max(first[1], first[3]);
                wash.setQuadPoints(new float[] {x1, y2, x2, y2, x1, y1, x2, y1});
                yield wash;
            }
            case ARROW -> line(new float[] {first[2], first[3], first[0], first[1]}, false);
            case BETWEEN -> line(new float[] {first[0], first[1], first[2], first[3]}, true);
            case INK -> {
                PDAnnotationInk ink = new PDAnnotationInk();
                ink.setInkList(strokes.toArray(float[][]::new));
                ink.setBorderStyle(border());
                yield ink;
            }
            case POINT -> {
                PDAnnotationText point = new PDAnnotationText();
                point.setName(PDAnnotationText.NAME_COMMENT);
                yield point;
            }
            case WORD -> {
                PDAnnotationFreeText word = new PDAnnotationFreeText();
                word.setDefaultAppearance("/Helv 12 Tf 0 g");
                yield word;
            }
        };
    }

    private static PDBorderStyleDictionary border() {
        PDBorderStyleDictionary border = new PDBorderStyleDictionary();
        border.setWidth(LINE);
        return border;
    }

    private static PDAnnotationLine line(float[] ends, boolean both) {
        PDAnnotationLine line = new PDAnnotationLine();
        line.setLine(ends);
        line.setBorderStyle(border());
        line.setEndPointEndingStyle(PDAnnotationLine.LE_OPEN_ARROW);
        if (both) {
            line.setStartPointEndingStyle(PDAnnotationLine.LE_OPEN_ARROW);
            line.setIntent(PDAnnotationLine.IT_LINE_DIMENSION);
        }
        return line;
    }

    /**
     * Reads what is annotated on a page, with its threads.
     *
     * @param most annotations that are read
     */
    public static Outcome<List<Found>> read(byte[] pdf, PdfWhere where, int most) {
        if (!PdfRoom.isModest(pdf)) {
            return Outcome.refused(
                    "annotations.large",
                    "Unpacked, the file is too large, or packed in a way that is not read here.",
                    "Save it once more, or give it without the sheet; nothing was taken in.");
        }
        try (PDDocument document = Loader.loadPDF(pdf)) {
            if (document.isEncrypted() || document.getNumberOfPages() <= where.index()) return none();
            List<PDAnnotation> all = document.getPage(where.index()).getAnnotations();
            if (all.size() > most) {
                return Outcome.refused(
                        "annotations.many",
                        "The page has " + all.size() + " annotations; " + most + " are the most.",
                        "Give fewer at once; nothing was taken in.");
            }
            Reading reading = new Reading(where.fit(), all);
            for (PDAnnotation one : all) reading.take(one);
            return reading.found.isEmpty() ? none() : Outcome.granted(reading.found);
        } catch (IOException | RuntimeException e) {
            return Outcome.refused("annotations.form", "The file cannot be read as a PDF.", "Nothing was taken in.");
        }
    }

    private static Outcome<List<Found>> none() {
        return Outcome.refused(
                "annotations.none", "Nothing is annotated on this page of the PDF.", "Nothing was taken in.");
    }

    private static final class Reading {
        private final Fit fit;
        private final Map<COSDictionary, String> names = new HashMap<>();
        private final List<Found> found = new ArrayList<>();

        Reading(Fit fit, List<PDAnnotation> all) {
            this.fit = fit;
            Set<String> taken = new HashSet<>();
            int place = 0;
            for (PDAnnotation one : all) {
                String name = name(one, place++);
                // Two of one name are two: some readers copy it with an annotation.
                while (!taken.add(name)) name = named(name + " again");
                names.put(one.getCOSObject(), name);
            }
        }

        private static String named(String text) {
            return UUID.nameUUIDFromBytes(text.getBytes(StandardCharsets.UTF_8)).toString();
        }

        private static String name(PDAnnotation one, int place) {
            String own = Optional.ofNullable(one.getAnnotationName()).orElse("").toLowerCase(Locale.ROOT);
            if (own.matches(UUID_FORM)) return own;
            return named(own.isEmpty() ? place + " " + one.getRectangle() + " " + one.getContents() : own);
        }

        void take(PDAnnotation one) {
            if (one.getSubtype() == null || SILENT.contains(one.getSubtype())) return;
            COSDictionary cos = one.getCOSObject();
            Optional<COSDictionary> root = root(cos);
            boolean answers = cos.containsKey(ANSWERS);
            found.add(new Found(
                    form(one.getSubtype()),
                    strokes(one),
                    names.getOrDefault(cos, named(String.valueOf(one.getContents()))),
                    Optional.ofNullable(cos.getString(COSName.T)).orElse(""),
                    Optional.ofNullable(one.getContents()).orElse(""),
                    at(cos),
                    answers ? root.map(names::get) : Optional.empty(),
                    answers && root.map(names::get).isEmpty(),
                    one.getSubtype()));
        }

        private static Optional<Instant> at(COSDictionary cos) {
            Calendar made = cos.getDate(COSName.CREATION_DATE);
            if (made == null) made = cos.getDate(COSName.M);
            return Optional.ofNullable(made).map(Calendar::toInstant);
        }

        /** What a chain of answers began with; empty where it goes round. */
        private static Optional<COSDictionary> root(COSDictionary cos) {
            COSDictionary at = cos;
            for (int i = 0; i < DEEPEST; i++) {
                if (!(at.getDictionaryObject(ANSWERS) instanceof COSDictionary before)) return Optional.of(at);
                at = before;
            }
            return Optional.empty();
        }

        private static Optional<Form> form(String kind) {
            return switch (kind) {
                case "Text", "FreeText", "Caret", "FileAttachment" -> Optional.of(Form.POINT);
                case "Ink" -> Optional.of(Form.INK);
                case "Line" -> Optional.of(Form.ARROW);
                case "Highlight" -> Optional.of(Form.WASH);
                case "Square", "Circle", "Polygon", "PolyLine", "Stamp", "Underline", "StrikeOut", "Squiggly" ->
                    Optional.of(Form.CLOUD);
                default -> Optional.empty();
            };
        }

        private double[] drawn(float... places) {
            double[] drawn = new double[places.length / 2 * 2];
            for (int i = 0; i + 1 < places.length; i += 2) {
                drawn[i] = fit.drawnX(places[i]);
                drawn[i + 1] = fit.drawnY(places[i + 1]);
            }
            return drawn;
        }

        private List<double[]> strokes(PDAnnotation one) {
            PDRectangle r = one.getRectangle();
            if (r == null) return List.of();
            COSDictionary cos = one.getCOSObject();
            return switch (form(one.getSubtype()).orElse(Form.CLOUD)) {
                case POINT, WORD -> List.of(drawn(r.getLowerLeftX(), r.getUpperRightY()));
                case INK -> ink(cos);
                case ARROW, BETWEEN -> {
                    float[] l = floats(cos, "L");
                    yield l.length == 4 ? List.of(drawn(l[2], l[3], l[0], l[1])) : List.of();
                }
                case CLOUD, WASH ->
                    List.of(drawn(r.getLowerLeftX(), r.getLowerLeftY(), r.getUpperRightX(), r.getUpperRightY()));
            };
        }

        private static float[] floats(COSDictionary cos, String key) {
            return cos.getDictionaryObject(COSName.getPDFName(key)) instanceof COSArray array
                    ? array.toFloatArray()
                    : new float[0];
        }

        private List<double[]> ink(COSDictionary cos) {
            List<double[]> strokes = new ArrayList<>();
            if (!(cos.getDictionaryObject(COSName.getPDFName("InkList")) instanceof COSArray all)) return strokes;
            for (int i = 0; i < all.size(); i++) {
                if (all.getObject(i) instanceof COSArray one && one.size() > 3) strokes.add(drawn(one.toFloatArray()));
            }
            return strokes;
        }
    }
}
