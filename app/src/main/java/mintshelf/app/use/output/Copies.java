package mintshelf.app.use.output;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import mintshelf.app.effect.HouseSeal;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.output.OutputStore.Wanted;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.MarkLayer;
import mintshelf.core.drawing.pdf.PdfPicture;
import mintshelf.core.drawing.pdf.PdfWriter;
import mintshelf.core.drawing.svg.SvgWriter;
import org.springframework.stereotype.Component;

/** Copies of a released version in the formats that its kind names, each with what its margin says where it has one. */
@Component
class Copies {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
    private static final String LAYER = "MINT_SHELF";
    private static final int PICTURE = 2400;

    private final SpineStore spines;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final Sheets sheets;
    private final Contents contents;
    private final SheetPdf pages;
    private final HouseSeal seal;
    private final Settings settings;

    Copies(
            SpineStore spines,
            VersionStore versions,
            RevisionStore revisions,
            Sheets sheets,
            Contents contents,
            SheetPdf pages,
            HouseSeal seal,
            Settings settings) {
        this.spines = spines;
        this.versions = versions;
        this.revisions = revisions;
        this.sheets = sheets;
        this.contents = contents;
        this.pages = pages;
        this.seal = seal;
        this.settings = settings;
    }

    /**
     * A copy.
     *
     * @param missing characters that no font has
     */
    record Made(byte[] bytes, Set<Integer> missing) {
        Made(byte[] bytes) {
            this(bytes, Set.of());
        }
    }

    /** The copy that is wanted, or why there is none. */
    Outcome<Made> make(Wanted wanted) {
        Document document = spines.spine(wanted.item()).orElseThrow().document();
        VersionRow version = versions.version(wanted.item(), wanted.number()).orElseThrow();
        RevisionRow revision = revisions.revisions(wanted.item()).stream()
                .filter(r -> r.revision().id() == version.revision())
                .findFirst()
                .orElseThrow();
        Instant at = revision.releasedAt().orElse(version.at());
        String what = document.number() + " " + revision.revision().shown();
        String margin = document.number() + " · " + revision.revision().shown() + " · released "
                + DAY.format(at.atZone(settings.zone())) + " · uncontrolled when printed";
        String title = what + " " + document.title();
        return switch (OutputFormat.valueOf(wanted.format())) {
            case PDF -> sealed(pages.write(version.content(), title, margin), "Released as " + what);
            case PNG -> picture(pages.write(version.content(), title, margin));
            case SVG -> svg(version, title, margin);
            case DXF -> dxf(version, margin);
            case STEP ->
                contents.whole(version.content())
                        .map(bytes -> Outcome.granted(new Made(bytes)))
                        .orElseGet(() -> Outcome.refused("copy.large", "The file is too large to be copied.", ""));
        };
    }

    private Outcome<Made> sealed(Outcome<PdfWriter.Written> page, String reason) {
        if (!(page instanceof Outcome.Granted<PdfWriter.Written> written)) return none(page);
        return Outcome.granted(new Made(
                seal.on(written.value().bytes(), reason), written.value().missing()));
    }

    private static Outcome<Made> picture(Outcome<PdfWriter.Written> page) {
        if (!(page instanceof Outcome.Granted<PdfWriter.Written> written)) return none(page);
        return Outcome.granted(new Made(
                PdfPicture.within(written.value().bytes(), PICTURE),
                written.value().missing()));
    }

    private static Outcome<Made> none(Outcome<?> page) {
        return Outcome.refused(page.refusal().orElseThrow());
    }

    private Outcome<Made> svg(VersionRow version, String title, String margin) {
        Outcome<DxfDrawing> drawing = drawing(version);
        if (!(drawing instanceof Outcome.Granted<DxfDrawing> opened)) return none(drawing);
        Outcome<Scene> scene = opened.value().scene();
        if (!(scene instanceof Outcome.Granted<Scene> read)) return none(scene);
        List<Primitive> all = new ArrayList<>(read.value().primitives());
        all.add(line(read.value(), margin));
        Scene marked = new Scene(all, read.value().layers(), read.value().notDrawn());
        return Outcome.granted(new Made(SvgWriter.write(marked, title).getBytes(StandardCharsets.UTF_8)));
    }

    private Outcome<Made> dxf(VersionRow version, String margin) {
        Outcome<DxfDrawing> drawing = drawing(version);
        if (!(drawing instanceof Outcome.Granted<DxfDrawing> opened)) return none(drawing);
        Outcome<Scene> scene = opened.value().scene();
        if (!(scene instanceof Outcome.Granted<Scene> read)) return none(scene);
        Outcome<byte[]> copy = MarkLayer.with(opened.value(), List.of(line(read.value(), margin)), LAYER);
        return copy instanceof Outcome.Granted<byte[]> bytes ? Outcome.granted(new Made(bytes.value())) : none(copy);
    }

    private Outcome<DxfDrawing> drawing(VersionRow version) {
        return sheets.opened(version.content())
                .map(Outcome::granted)
                .orElseGet(() -> Outcome.refused(Refusal.of(
                        "copy.none", sheets.whyUnread(version.content()).orElse("The drawing cannot be read."), "")));
    }

    /** The line within the lower edge of the sheet, as high as on the PDF. */
    private static Primitive line(Scene scene, String margin) {
        Box box = scene.extents();
        double height = 1.8 * Math.max(1, Math.min(box.width(), box.height()) / 297);
        Style ink = new Style(LAYER, Style.INK, 0.18, List.of());
        return new Primitive.Text(ink, box.minX() + 20, box.minY() + 1, height, 0, 1, 0, 0, false, margin);
    }
}
