package mintshelf.app.use.redline;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.MarkLayer;
import mintshelf.core.drawing.pdf.PdfWhere;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.redline.MarkPaint;
import mintshelf.core.redline.RedlineSvg;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.exchange.ReplyPage;
import mintshelf.core.redline.exchange.WebAnnotations;
import org.springframework.stereotype.Service;

/** Copies of a sheet with its remarks: a drawing with a layer of marks, or a page of PDF. The version itself stays as it is. */
@Service
public class GiveMarks {
    /** Bytes of a picture that goes within a page. */
    private static final int LARGEST_PICTURE = 12 << 20;

    private final ReadRemarks remarks;
    private final Redlines redlines;
    private final Sheets sheets;
    private final SheetPdf pages;
    private final PdfSheets pdfs;
    private final Contents contents;

    public GiveMarks(
            ReadRemarks remarks, Redlines redlines, Sheets sheets, SheetPdf pages, PdfSheets pdfs, Contents contents) {
        this.pdfs = pdfs;
        this.contents = contents;
        this.remarks = remarks;
        this.redlines = redlines;
        this.sheets = sheets;
        this.pages = pages;
    }

    /** Forms in which marks are given. */
    public enum Form {
        HTML("page that takes answers, for a browser without a server", "a page", true),
        PDF("PDF with annotations that other readers show and answer", "PDF", true),
        DXF("DXF with the marks on a layer of their own", "DXF, on a layer of their own", false),
        /** A collection of Web Annotations. */
        JSON("Web Annotations (JSON-LD)", "JSON", false);

        private final String words;
        private final String brief;
        private final boolean choice;

        Form(String words, String brief, boolean choice) {
            this.words = words;
            this.brief = brief;
            this.choice = choice;
        }

        /** As a list of links names it. */
        public String shortly() {
            return brief;
        }

        public String words() {
            return words;
        }

        /** Whether the sheet may go with it or stay here. */
        public boolean isWithOrWithout() {
            return choice;
        }

        public String ending() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The forms that marks on a paper can be given in: none of a model, whose marks stand in space. */
    public List<Form> forms(ReadRemarks.OnSheet on) {
        if (on.paper().isSpace()) return List.of();
        if (on.version().content().kind() == ContentKind.PDF) return List.of(Form.HTML, Form.PDF, Form.JSON);
        if (on.version().content().kind() != ContentKind.DXF) return List.of(Form.HTML, Form.JSON);
        // A layer of marks is laid over the sheet, not over another layout.
        boolean sheet = redlines.paper(on.version(), "")
                .filter(p -> p.layout().equals(on.paper().layout()))
                .isPresent();
        return sheet ? List.of(Form.values()) : List.of(Form.HTML, Form.PDF, Form.JSON);
    }

    /** What can be given of a version: its remarks as they stand on the sheet, a layout or page of it. */
    public ReadRemarks.OnSheet all(Actor actor, VersionRow version, long item, String layout) {
        return remarks.on(actor, item, version.number(), layout);
    }

    /**
     * A copy of a version's sheet with marks. That the actor may fetch the version was asked before.
     *
     * @param layout of the drawing, or page; empty for the sheet
     * @param ids of the remarks that go with it; empty for all that stand on the sheet
     * @param sheet whether what is drawn goes with them, where that can be chosen
     */
    public byte[] copy(
            Actor actor, VersionRow version, long item, String layout, Collection<Long> ids, Form form, boolean sheet) {
        ReadRemarks.OnSheet on = remarks.on(actor, item, version.number(), layout);
        if (!forms(on).contains(form)) throw new NotThere();
        List<Placed> chosen = on.placed().stream()
                .filter(p -> ids.isEmpty() || ids.contains(p.remark().id()))
                .toList();
        if (chosen.isEmpty()) {
            throw Refused.because("marks.none", "No mark stands on this sheet.", "Fetch the file as it is.");
        }
        String title = on.seen().document().number() + " version " + version.number();
        return switch (form) {
            case HTML -> page(on, chosen, title, sheet);
            case JSON -> annotations(version, chosen, title).getBytes(StandardCharsets.UTF_8);
            case DXF -> {
                DxfDrawing drawing = sheets.opened(version.drawn().content()).orElseThrow(NotThere::new);
                yield MarkLayer.with(drawing, painted(on, chosen), MarkPaint.LAYER)
                        .orElseThrow(Refused::new);
            }
            case PDF -> pdf(on, chosen, title, sheet);
        };
    }

    private static List<Primitive> painted(ReadRemarks.OnSheet on, List<Placed> chosen) {
        List<Primitive> marks = new ArrayList<>();
        for (Placed p : chosen)
            marks.addAll(MarkPaint.paint(p.remark(), p.followed(), on.paper().millimetre()));
        return marks;
    }

    private static String annotations(VersionRow version, List<Placed> chosen, String title) {
        String source = "urn:sha256:" + version.drawn().content().hash().hex();
        return WebAnnotations.write(chosen, new WebAnnotations.Source(title, source));
    }

    private byte[] page(ReadRemarks.OnSheet on, List<Placed> chosen, String title, boolean sheet) {
        String drawn = sheet ? drawn(on, title) : "";
        String marks = RedlineSvg.over(chosen, on.paper().box(), on.paper().millimetre());
        return ReplyPage.write(title, drawn, marks, annotations(on.version(), chosen, title))
                .getBytes(StandardCharsets.UTF_8);
    }

    /** What lies under the marks: drawn, or as a picture within the page. */
    private String drawn(ReadRemarks.OnSheet on, String title) {
        Box box = on.paper().box();
        StoredContent content = on.version().content();
        if (content.kind() == ContentKind.DXF) {
            return SvgWriter.frame(box, title, SvgWriter.inside(scene(on), box, true));
        }
        boolean page = PdfSheets.isPaper(content);
        byte[] picture = page
                ? pdfs.png(content, Redlines.pageOf(on.paper().layout()), PdfSheets.TO_READ)
                        .orElseThrow(Refused::new)
                : contents.whole(content)
                        .filter(bytes -> bytes.length <= LARGEST_PICTURE)
                        .orElseThrow(() -> Refused.because(
                                "marks.large",
                                "The picture is too large to go with its remarks.",
                                "Send it by itself."));
        String type = page ? "image/png" : content.kind().mediaType();
        return SvgWriter.picture(
                box, title, "data:" + type + ";base64," + Base64.getEncoder().encodeToString(picture));
    }

    private byte[] pdf(ReadRemarks.OnSheet on, List<Placed> chosen, String title, boolean sheet) {
        double millimetre = on.paper().millimetre();
        StoredContent content = on.version().content();
        if (content.kind() == ContentKind.PDF && sheet) {
            byte[] own = contents.whole(content).orElseThrow(NotThere::new);
            return pages.annotated(own, chosen, redlines.where(on.version(), on.paper()), millimetre);
        }
        Scene scene = scene(on);
        Box extents = scene.primitives().isEmpty() ? on.paper().box() : scene.extents();
        Scene under = sheet ? scene : new Scene(List.of(edge(extents)), scene.layers(), scene.notDrawn(), scene.said());
        byte[] page = pages.write(List.of(under), title + ", with remarks");
        return pages.annotated(page, chosen, PdfWhere.sheet(extents), millimetre);
    }

    /** The edge of a sheet that stays here. */
    private static Primitive edge(Box box) {
        return new Primitive.Polyline(
                new Style("", Style.INK, 0.18, List.of()),
                new double[] {
                    box.minX(), box.minY(), box.maxX(), box.minY(), box.maxX(), box.maxY(), box.minX(), box.maxY()
                },
                true);
    }

    private Scene scene(ReadRemarks.OnSheet on) {
        return redlines.read(on.version(), on.paper().layout())
                .orElseThrow(NotThere::new)
                .scene();
    }
}
