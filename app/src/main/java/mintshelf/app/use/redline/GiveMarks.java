package mintshelf.app.use.redline;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.MarkLayer;
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
    private final ReadRemarks remarks;
    private final Redlines redlines;
    private final Sheets sheets;
    private final SheetPdf pages;

    public GiveMarks(ReadRemarks remarks, Redlines redlines, Sheets sheets, SheetPdf pages) {
        this.remarks = remarks;
        this.redlines = redlines;
        this.sheets = sheets;
        this.pages = pages;
    }

    /** Forms in which marks are given. */
    public enum Form {
        HTML("page that takes answers, for a browser without a server", true),
        PDF("PDF with annotations that other readers show and answer", true),
        DXF("DXF with the marks on a layer of their own", false),
        /** A collection of Web Annotations. */
        JSON("Web Annotations (JSON-LD)", false);

        private final String words;
        private final boolean choice;

        Form(String words, boolean choice) {
            this.words = words;
            this.choice = choice;
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

    /** What can be given of a version: its remarks as they stand on the sheet. */
    public List<Placed> all(Actor actor, VersionRow version, long item) {
        return remarks.on(actor, item, version.number(), "").placed();
    }

    /**
     * A copy of a version's sheet with marks. That the actor may fetch the version was asked before.
     *
     * @param ids of the remarks that go with it; empty for all that stand on the sheet
     * @param sheet whether what is drawn goes with them, where that can be chosen
     */
    public byte[] copy(Actor actor, VersionRow version, long item, Collection<Long> ids, Form form, boolean sheet) {
        ReadRemarks.OnSheet on = remarks.on(actor, item, version.number(), "");
        List<Placed> chosen = on.placed().stream()
                .filter(p -> ids.isEmpty() || ids.contains(p.remark().id()))
                .toList();
        if (chosen.isEmpty()) {
            throw Refused.because("marks.none", "No mark stands on this sheet.", "Fetch the file as it is.");
        }
        String title = on.seen().document().number() + " version " + version.number();
        return switch (form) {
            case HTML -> page(version, on, chosen, title, sheet);
            case JSON -> annotations(version, chosen, title).getBytes(StandardCharsets.UTF_8);
            case DXF -> {
                DxfDrawing drawing = sheets.opened(version.content()).orElseThrow(NotThere::new);
                yield MarkLayer.with(drawing, painted(on, chosen), MarkPaint.LAYER)
                        .orElseThrow(Refused::new);
            }
            case PDF -> pdf(version, on, chosen, title, sheet);
        };
    }

    private static List<Primitive> painted(ReadRemarks.OnSheet on, List<Placed> chosen) {
        List<Primitive> marks = new ArrayList<>();
        for (Placed p : chosen)
            marks.addAll(MarkPaint.paint(p.remark(), p.followed(), on.paper().millimetre()));
        return marks;
    }

    private static String annotations(VersionRow version, List<Placed> chosen, String title) {
        String source = "urn:sha256:" + version.content().hash().hex();
        return WebAnnotations.write(chosen, new WebAnnotations.Source(title, source));
    }

    private byte[] page(VersionRow version, ReadRemarks.OnSheet on, List<Placed> chosen, String title, boolean sheet) {
        Scene scene = scene(version);
        String drawn = sheet
                ? SvgWriter.frame(
                        on.paper().box(),
                        title,
                        SvgWriter.inside(scene, on.paper().box(), true))
                : "";
        String marks = RedlineSvg.over(chosen, on.paper().box(), on.paper().millimetre());
        return ReplyPage.write(title, drawn, marks, annotations(version, chosen, title))
                .getBytes(StandardCharsets.UTF_8);
    }

    private byte[] pdf(VersionRow version, ReadRemarks.OnSheet on, List<Placed> chosen, String title, boolean sheet) {
        Scene scene = scene(version);
        Scene under = sheet
                ? scene
                : new Scene(List.of(edge(scene.extents())), scene.layers(), scene.notDrawn(), scene.said());
        byte[] page = pages.write(List.of(under), title + ", with remarks");
        return pages.annotated(page, chosen, scene.extents(), on.paper().millimetre());
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

    private Scene scene(VersionRow version) {
        return redlines.read(version.content(), "").orElseThrow(NotThere::new).scene();
    }
}
