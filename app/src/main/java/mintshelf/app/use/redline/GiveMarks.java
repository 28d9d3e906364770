package mintshelf.app.use.redline;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.MarkLayer;
import mintshelf.core.redline.MarkPaint;
import mintshelf.core.redline.RedlineSvg.Placed;
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
        DXF,
        PDF,
        /** A collection of Web Annotations, without the sheet. */
        JSON
    }

    /**
     * A copy of a version's sheet with marks. That the actor may fetch the version was asked before.
     *
     * @param ids of the remarks that go with it; empty for all that stand on the sheet
     */
    public byte[] copy(Actor actor, VersionRow version, long item, Collection<Long> ids, Form form) {
        ReadRemarks.OnSheet on = remarks.on(actor, item, version.number(), "");
        List<Placed> chosen = on.placed().stream()
                .filter(p -> ids.isEmpty() || ids.contains(p.remark().id()))
                .toList();
        if (chosen.isEmpty()) {
            throw Refused.because("marks.none", "No mark stands on this sheet.", "Fetch the file as it is.");
        }
        String title = on.seen().document().number() + " version " + version.number();
        if (form == Form.JSON) {
            String source = "urn:sha256:" + version.content().hash().hex();
            return WebAnnotations.write(chosen, new WebAnnotations.Source(title, source))
                    .getBytes(StandardCharsets.UTF_8);
        }
        List<Primitive> marks = new ArrayList<>();
        for (Placed p : chosen)
            marks.addAll(MarkPaint.paint(p.remark(), p.followed(), on.paper().millimetre()));
        if (form == Form.DXF) {
            DxfDrawing drawing = sheets.opened(version.content()).orElseThrow(NotThere::new);
            return MarkLayer.with(drawing, marks, MarkPaint.LAYER).orElseThrow(Refused::new);
        }
        Scene sheet =
                redlines.read(version.content(), "").orElseThrow(NotThere::new).scene();
        List<Primitive> both = new ArrayList<>(sheet.primitives());
        both.addAll(marks);
        Scene marked = new Scene(both, sheet.layers(), sheet.notDrawn(), sheet.said());
        return pages.write(List.of(marked), title + ", with remarks");
    }
}
