package mintshelf.core.drawing.pdf;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDDocumentInformation;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.optionalcontent.PDOptionalContentGroup;
import org.apache.pdfbox.pdmodel.graphics.optionalcontent.PDOptionalContentProperties;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAppearanceStream;
import org.apache.pdfbox.util.Matrix;

/**
 * Writes a scene as one page of PDF (ISO 32000-1, kept as ISO 19005-2 asks for level B) in its own size: a unit of the drawing is a millimetre of the page. Line widths
 * and dashes are those of the drawing; the font is embedded, so that the text can be read, searched and copied everywhere.
 * O(primitives). The same scene gives the same bytes.
 */
public final class PdfWriter {
    private static final float MM = 72f / 25.4f;
    /** A page of PDF is at most 14,400 units wide (ISO 32000-1, annex C). */
    private static final double LARGEST = 14_000 / MM;
    /** Height of capitals as a part of a font's size, by which drawings give the height of texts. */
    private static final float CAPITALS = 0.729f;

    private final PDPageContentStream out;
    /** The first is the sheet's; the others have letters that it lacks. */
    private final List<PDFont> fonts;

    private final double scale;
    private final double left;
    private final double bottom;
    private final Set<Integer> missing = new TreeSet<>();

    /** What stands in the place of a letter that no font has: a box, never another letter. */
    private static final String BOX = "\u25A1";

    private PdfWriter(PDPageContentStream out, List<PDFont> fonts, double scale, double left, double bottom) {
        this.out = out;
        this.fonts = fonts;
        this.scale = scale;
        this.left = left;
        this.bottom = bottom;
    }

    /** A written page, and the characters that no font has: a box stands in their place. */
    public record Written(byte[] bytes, Set<Integer> missing) {
        public Written {
            missing = Set.copyOf(missing);
        }
    }

    /**
     * Writes the page.
     *
     * @param fonts TrueType fonts: the sheet's, then those that stand in for letters that it lacks
     * @param title of the document
     * @param margin a line under the sheet's frame; empty for none
     */
    public static Written write(Scene scene, List<byte[]> fonts, String title, String margin) {
        return write(List.of(scene), fonts, title, margin);
    }

    /** Writes several pages, each as {@link #write(Scene, List, String, String)} does. */
    public static Written write(List<Scene> pages, List<byte[]> fonts, String title, String margin) {
        try (PDDocument document = new PDDocument()) {
            document.setDocumentId((long) title.hashCode());
            document.setVersion(1.7f);
            PDDocumentInformation about = new PDDocumentInformation();
            about.setTitle(title);
            about.setProducer("Mint Shelf");
            document.setDocumentInformation(about);
            List<PDFont> embedded = embedded(document, pages, fonts, margin);
            Set<Integer> missing = new TreeSet<>();
            for (Scene scene : pages) page(document, scene, embedded, margin, missing);
            PdfArchive.declare(document, title);
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return new Written(bytes.toByteArray(), missing);
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }

    /** The sheet's font; the others only where a text has letters that it lacks, for they are large. */
    private static List<PDFont> embedded(PDDocument document, List<Scene> pages, List<byte[]> fonts, String margin)
            throws IOException {
        List<PDFont> embedded = new ArrayList<>();
        embedded.add(PDType0Font.load(document, new ByteArrayInputStream(fonts.get(0)), true));
        boolean lacks = !has(embedded.get(0), margin)
                || pages.stream()
                        .flatMap(s -> s.primitives().stream())
                        .anyMatch(p -> p instanceof Primitive.Text t && !has(embedded.get(0), t.text()));
        for (int i = 1; lacks && i < fonts.size(); i++) {
            embedded.add(PDType0Font.load(document, new ByteArrayInputStream(fonts.get(i)), true));
        }
        return embedded;
    }

    private static boolean has(PDFont font, String text) {
        return text.codePoints().filter(c -> c >= ' ').allMatch(c -> has(font, c));
    }

    private static boolean has(PDFont font, int c) {
        try {
            font.encode(Character.toString(c));
            return true;
        } catch (IOException | IllegalArgumentException e) {
            return false;
        }
    }

    private static void page(PDDocument document, Scene scene, List<PDFont> fonts, String margin, Set<Integer> missing)
            throws IOException {
        Box box = drawn(scene.extents());
        double edge = edge(box);
        Fit fit = Fit.of(box);
        double scale = fit.scale();
        PDPage page = new PDPage(new PDRectangle((float) fit.width(), (float) fit.height()));
        document.addPage(page);
        try (PDPageContentStream out = new PDPageContentStream(document, page)) {
            out.setLineCapStyle(1);
            out.setLineJoinStyle(1);
            PdfWriter writer = new PdfWriter(out, fonts, scale, box.minX() - edge, box.minY() - edge);
            String open = "";
            for (Primitive p : scene.primitives()) {
                String layer = p.style().layer();
                if (!scene.layers().getOrDefault(layer, true)) continue;
                if (!layer.equals(open)) {
                    if (!open.isEmpty()) out.endMarkedContent();
                    if (!layer.isEmpty()) out.beginMarkedContent(COSName.OC, group(document, layer));
                    open = layer;
                }
                writer.draw(p);
            }
            if (!open.isEmpty()) out.endMarkedContent();
            if (!margin.isEmpty()) writer.margin(margin, box, edge);
            missing.addAll(writer.missing);
        }
    }

    /** Pictures of single things over a page that was written here, such as annotations; their fonts are embedded once. */
    public static final class Appearances {
        private final PDDocument document;
        private final List<PDFont> fonts = new ArrayList<>();
        private final Fit fit;

        /** @param fonts as for {@link #write}; of them the sheet's */
        public Appearances(PDDocument document, List<byte[]> fonts, Fit fit) throws IOException {
            this.document = document;
            this.fonts.add(PDType0Font.load(document, new ByteArrayInputStream(fonts.get(0)), true));
            this.fit = fit;
        }

        /** A picture of primitives of the sheet, in the page's own coordinates: its box is where it lies. */
        public PDAppearanceStream of(List<Primitive> all) throws IOException {
            Box box = Box.EMPTY;
            for (Primitive p : all) box = box.with(p.box());
            double room = 1.5 / fit.scale();
            PDAppearanceStream form = new PDAppearanceStream(document);
            float x = fit.x(box.minX() - room);
            float y = fit.y(box.minY() - room);
            form.setBBox(new PDRectangle(x, y, fit.x(box.maxX() + room) - x, fit.y(box.maxY() + room) - y));
            form.setResources(new PDResources());
            try (PDPageContentStream out = new PDPageContentStream(document, form)) {
                out.setLineCapStyle(1);
                out.setLineJoinStyle(1);
                PdfWriter writer = new PdfWriter(out, fonts, fit.scale(), fit.left(), fit.bottom());
                for (Primitive p : all) writer.draw(p);
            }
            return form;
        }
    }

    /** The optional content of a layer (ISO 32000-1, 8.11), one group for each name in the document. */
    private static PDOptionalContentGroup group(PDDocument document, String layer) {
        PDOptionalContentProperties all = document.getDocumentCatalog().getOCProperties();
        if (all == null) {
            all = new PDOptionalContentProperties();
            document.getDocumentCatalog().setOCProperties(all);
        }
        PDOptionalContentGroup known = all.getGroup(layer);
        if (known != null) return known;
        PDOptionalContentGroup group = new PDOptionalContentGroup(layer);
        all.addGroup(group);
        return group;
    }

    /** Whether the box is a sheet of ISO 216 (A0 to A4), to a millimetre: then the page is that sheet, without an edge. */
    private static Box drawn(Box extents) {
        return extents.isEmpty() ? new Box(0, 0, 210, 297) : extents;
    }

    private static double edge(Box box) {
        return isSheet(box) ? 0 : Math.max(5, Math.max(box.width(), box.height()) * 0.02);
    }

    /**
     * How what is drawn lies on its page.
     *
     * @param scale millimetres of the page for a unit of the drawing
     * @param left of the drawing's units, where the page begins; {@code bottom} likewise
     * @param width of the page in points; {@code height} likewise
     */
    public record Fit(double scale, double left, double bottom, double width, double height) {
        /** @param extents of all that is drawn */
        public static Fit of(Box extents) {
            Box box = drawn(extents);
            double edge = edge(box);
            double width = box.width() + 2 * edge;
            double height = box.height() + 2 * edge;
            double scale = Math.min(1, LARGEST / Math.max(width, height));
            if (Math.max(width, height) * scale < 50) scale = 250 / Math.max(width, height);
            return new Fit(scale, box.minX() - edge, box.minY() - edge, width * scale * MM, height * scale * MM);
        }

        /** A place of the drawing in points of the page. */
        public float x(double x) {
            return (float) ((x - left) * scale * MM);
        }

        public float y(double y) {
            return (float) ((y - bottom) * scale * MM);
        }

        /** A place of the page in units of the drawing. */
        public double drawnX(double x) {
            return x / MM / scale + left;
        }

        public double drawnY(double y) {
            return y / MM / scale + bottom;
        }
    }

    private static boolean isSheet(Box box) {
        double longer = Math.max(box.width(), box.height());
        double shorter = Math.min(box.width(), box.height());
        double[][] sheets = {{1189, 841}, {841, 594}, {594, 420}, {420, 297}, {297, 210}};
        for (double[] sheet : sheets) {
            if (Math.abs(longer - sheet[0]) < 1 && Math.abs(shorter - sheet[1]) < 1) return true;
        }
        return false;
    }

    private void draw(Primitive p) throws IOException {
        if (p instanceof Primitive.Text text) {
            text(text);
        } else if (p instanceof Primitive.Fill fill) {
            ink(fill.style());
            boolean any = false;
            for (double[] ring : fill.rings()) any |= points(ring, true);
            if (any) out.fillEvenOdd();
        } else if (p instanceof Primitive.Strokes strokes) {
            stroke(strokes.style());
            double[] e = strokes.ends();
            for (int i = 0; i + 3 < e.length; i += 4) {
                out.moveTo(x(e[i]), y(e[i + 1]));
                out.lineTo(x(e[i + 2]), y(e[i + 3]));
            }
            out.stroke();
        } else if (p instanceof Primitive.Polyline line) {
            stroke(line.style());
            if (points(line.points(), line.closed())) out.stroke();
        } else if (p instanceof Primitive.Arc arc) {
            stroke(arc.style());
            arc(arc);
            out.stroke();
        }
    }

    private void ink(Style style) throws IOException {
        int colour = style.colour() == Style.INK ? 0x14201c : style.colour() == Style.PAPER ? 0xffffff : style.colour();
        float r = (colour >> 16 & 255) / 255f;
        float g = (colour >> 8 & 255) / 255f;
        float b = (colour & 255) / 255f;
        out.setNonStrokingColor(r, g, b);
        out.setStrokingColor(r, g, b);
    }

    private void stroke(Style style) throws IOException {
        ink(style);
        out.setLineWidth((float) Math.max(0.05, style.weight()) * MM);
        List<Double> dashes = style.dashes();
        float[] pattern = new float[dashes.size()];
        float sum = 0;
        for (int i = 0; i < pattern.length; i++) {
            pattern[i] = (float) (dashes.get(i) * scale * MM);
            sum += pattern[i];
        }
        out.setLineDashPattern(sum > 0 ? pattern : new float[0], 0);
    }

    private float x(double x) {
        return (float) ((x - left) * scale * MM);
    }

    private float y(double y) {
        return (float) ((y - bottom) * scale * MM);
    }

    private boolean points(double[] points, boolean closed) throws IOException {
        if (points.length < 4) return false;
        out.moveTo(x(points[0]), y(points[1]));
        for (int i = 2; i + 1 < points.length; i += 2) out.lineTo(x(points[i]), y(points[i + 1]));
        if (closed) out.closePath();
        return true;
    }

    /** As cubic curves of at most a quarter turn each; the error stays under 0.03 % of the radius. */
    private void arc(Primitive.Arc arc) throws IOException {
        int parts = Math.max(1, (int) Math.ceil(Math.abs(arc.sweep()) / 90));
        double step = Math.toRadians(arc.sweep() / parts);
        double k = 4.0 / 3 * Math.tan(step / 4) * arc.radius();
        double a = Math.toRadians(arc.from());
        out.moveTo(x(arc.x() + arc.radius() * Math.cos(a)), y(arc.y() + arc.radius() * Math.sin(a)));
        for (int i = 0; i < parts; i++) {
            double b = a + step;
            double x1 = arc.x() + arc.radius() * Math.cos(a);
            double y1 = arc.y() + arc.radius() * Math.sin(a);
            double x2 = arc.x() + arc.radius() * Math.cos(b);
            double y2 = arc.y() + arc.radius() * Math.sin(b);
            out.curveTo(
                    x(x1 - k * Math.sin(a)),
                    y(y1 + k * Math.cos(a)),
                    x(x2 + k * Math.sin(b)),
                    y(y2 - k * Math.cos(b)),
                    x(x2),
                    y(y2));
            a = b;
        }
        if (arc.sweep() >= 360) out.closePath();
    }

    private void text(Primitive.Text t) throws IOException {
        List<Run> runs = runs(t.text());
        if (runs.stream().allMatch(r -> r.text().isBlank())) return;
        ink(t.style());
        float size = (float) (t.height() * scale * MM) / CAPITALS;
        if (size <= 0) return;
        float wide = 0;
        for (Run run : runs) wide += run.font().getStringWidth(run.text()) / 1000 * size;
        float across = t.across() == 1 ? -wide / 2 : t.across() == 2 ? -wide : 0;
        float up = (float) (t.height() * scale * MM) * (t.up() == 3 ? -1 : t.up() == 2 ? -0.5f : 0);
        double a = Math.toRadians(t.angle());
        float c = (float) Math.cos(a);
        float s = (float) Math.sin(a);
        Matrix place = new Matrix(c, s, -s, c, x(t.x()), y(t.y()));
        place.concatenate(Matrix.getScaleInstance((float) t.width(), t.mirrored() ? -1 : 1));
        place.concatenate(Matrix.getTranslateInstance(across, up));
        write(runs, size, place);
    }

    /** A part of a text, in the font that has its letters. */
    private record Run(PDFont font, String text) {}

    private void write(List<Run> runs, float size, Matrix place) throws IOException {
        out.beginText();
        out.setTextMatrix(place);
        for (Run run : runs) {
            out.setFont(run.font(), size);
            out.showText(run.text());
        }
        out.endText();
    }

    private void margin(String margin, Box box, double edge) throws IOException {
        ink(new Style("", Style.INK, 0.18, List.of()));
        float size = (float) (1.8 * MM * Math.max(1, Math.min(box.width(), box.height()) * scale / 297));
        write(
                runs(margin),
                size,
                Matrix.getTranslateInstance(x(box.minX() + 20 / scale), y(box.minY() - edge) + 2 * MM / 2));
    }

    private List<Run> runs(String text) {
        List<Run> runs = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        PDFont current = fonts.get(0);
        for (int c : text.codePoints().filter(c -> c >= ' ').toArray()) {
            PDFont with = fonts.stream().filter(f -> has(f, c)).findFirst().orElse(fonts.get(0));
            if (!with.equals(current) && !part.isEmpty()) {
                runs.add(new Run(current, part.toString()));
                part.setLength(0);
            }
            current = with;
            if (has(with, c)) {
                part.appendCodePoint(c);
            } else {
                missing.add(c);
                part.append(BOX);
            }
        }
        if (!part.isEmpty()) runs.add(new Run(current, part.toString()));
        return runs;
    }
}
