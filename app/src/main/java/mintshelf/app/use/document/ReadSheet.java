package mintshelf.app.use.document;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.document.Sheet.Drawn;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.PictureSize;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfPages;
import mintshelf.core.drawing.pdf.PdfPages.Pages;
import mintshelf.core.drawing.svg.RingedSvg;
import mintshelf.core.drawing.svg.SvgParts;
import mintshelf.core.drawing.svg.SvgWriter;
import org.springframework.stereotype.Service;

/** Draws contents for pages. That the actor may see the content was asked before. */
@Service
public class ReadSheet {
    private static final int TEXT = 48 << 10;
    private static final int KEPT_THUMBNAILS = 400;
    private static final long LARGEST_THUMBNAIL = 8L << 20;

    private final Contents contents;
    private final Sheets sheets;
    private final PdfSheets pdfs;
    private final ReadingRoom room;
    private final ReadOffice office;

    /** Small pictures by the hash of their content, which never changes: no rule for staleness is needed. */
    private final Map<String, String> thumbnails = Recent.most(KEPT_THUMBNAILS);

    private static final int KEPT_REFUSALS = 1000;

    private final Map<String, Refusal> refused = Recent.most(KEPT_REFUSALS);

    public ReadSheet(Contents contents, Sheets sheets, PdfSheets pdfs, ReadingRoom room, ReadOffice office) {
        this.office = office;
        this.pdfs = pdfs;
        this.room = room;
        this.contents = contents;
        this.sheets = sheets;
    }

    /** A page of a PDF as PNG. */
    public byte[] page(StoredContent content, int number, boolean toRead) {
        return pdfs.png(content, number, toRead ? PdfSheets.TO_READ : PdfSheets.TO_SEE)
                .orElseThrow(Refused::new);
    }

    /** As {@link #sheet(StoredContent)}, but a page does not wait: what takes long comes later, by itself. */
    public Sheet sheetSoon(StoredContent content) {
        return room.soon(() -> sheet(content), LATER);
    }

    private static final Sheet LATER = new Sheet("LATER", List.of(), false, Map.of(), Drawn.NOTHING);

    /** What a page shows of a content. */
    public Sheet sheet(StoredContent content) {
        if (content.kind().isPicture()) return picture(content);
        if (PdfSheets.isPaper(content)) return page(content);
        if (content.kind() == ContentKind.TEXT) return text(content);
        if (content.kind() == ContentKind.OFFICE) return office.of(content).orElseGet(() -> card(content));
        return sheets.opened(content)
                .map(drawing -> drawing(content, drawing, drawing.sheet(), false))
                .orElseGet(() -> card(content));
    }

    private Sheet picture(StoredContent content) {
        // Of what says how large it is the viewer takes marks.
        List<String> layouts = size(content).isPresent() ? List.of("") : List.of();
        return new Sheet("PICTURE", List.of(), false, Map.of(), Drawn.NOTHING, layouts, "");
    }

    private Optional<PictureSize> size(StoredContent content) {
        return PictureSize.of(contents.bytes(content, PictureSize.SAMPLE));
    }

    private Sheet page(StoredContent content) {
        return pdfs.pages(content) instanceof Outcome.Granted<Pages> pages ? page(pages.value(), 0, "") : card(content);
    }

    private static Sheet page(Pages pages, int index, String svg) {
        List<String> names = Redlines.names(pages);
        List<String> lacks = pages.count() > names.size()
                ? List.of("The first " + Numbers.grouped(names.size()) + " of " + Numbers.grouped(pages.count())
                        + " pages are shown.")
                : List.of();
        return new Sheet(
                "PAGE",
                List.of(),
                false,
                Map.of(),
                new Drawn(svg, Map.of(), Map.of(), lacks, ""),
                names,
                names.get(index));
    }

    /**
     * What fills the window: a layout of a drawing, a page of a PDF, a picture; the sheet or first page without a wish. Not there where
     * there is no such layout.
     *
     * @param base address of the version
     */
    public Sheet layout(StoredContent content, Optional<String> layout, String base) {
        if (PdfSheets.isPaper(content)) return page(content, layout, base);
        if (content.kind().isPicture()) return picture(content, layout, base);
        DxfDrawing drawing = sheets.opened(content).orElseThrow(NotThere::new);
        String wanted = layout.orElse(drawing.sheet());
        if (!drawing.layouts().contains(wanted)) throw new NotThere();
        return drawing(content, drawing, wanted, true);
    }

    /** Gives what the picture of a large layout lacks at first, a part after the other; nothing of one that is whole. */
    public void rest(StoredContent content, Optional<String> layout, Consumer<String> each) {
        DxfDrawing drawing = sheets.opened(content).orElseThrow(NotThere::new);
        String wanted = layout.orElse(drawing.sheet());
        if (!drawing.layouts().contains(wanted)) throw new NotThere();
        if (scene(content, drawing, wanted) instanceof Outcome.Granted<Scene> scene) {
            if (SvgParts.isLarge(scene.value())) SvgParts.of(scene.value()).others(each);
        }
    }

    private Sheet page(StoredContent content, Optional<String> layout, String base) {
        Pages pages = pdfs.pages(content).orElseThrow(Refused::new);
        int index = layout.map(Redlines.names(pages)::indexOf).orElse(0);
        if (index < 0) throw new NotThere();
        PdfPages.Page page = pages.pages().get(index);
        Box box = new Box(0, 0, page.width(), page.height());
        return page(pages, index, SvgWriter.picture(box, "Page " + (index + 1), base + "/page?page=" + (index + 1)));
    }

    private Sheet picture(StoredContent content, Optional<String> layout, String base) {
        PictureSize size = size(content).filter(s -> layout.isEmpty()).orElseThrow(NotThere::new);
        Box box = new Box(0, 0, size.width(), size.height());
        Drawn drawn =
                new Drawn(SvgWriter.picture(box, "Picture", base + "/picture"), Map.of(), Map.of(), List.of(), "");
        return new Sheet("PICTURE", List.of(), false, Map.of(), drawn, List.of(""), "");
    }

    private Sheet card(StoredContent content) {
        String why = switch (content.kind()) {
            case DXF -> sheets.whyUnread(content).orElse("");
            case PDF, TIFF -> pdfs.pages(content).refusal().map(Refusal::reason).orElse("");
            default -> "";
        };
        return new Sheet("CARD", List.of(), false, Map.of(), new Drawn("", Map.of(), Map.of(), List.of(), why));
    }

    /** @param inParts whether what is large comes with its largest lines first */
    private Sheet drawing(StoredContent content, DxfDrawing drawing, String layout, boolean inParts) {
        Map<String, String> said = sheets.said(drawing);
        Outcome<Scene> read = scene(content, drawing, layout);
        if (!(read instanceof Outcome.Granted<Scene> granted)
                || granted.value().primitives().isEmpty()) {
            String why = read.refusal().map(r -> r.says()).orElse("Its model space is empty.");
            return new Sheet(
                    "TITLE_BLOCK",
                    List.of(),
                    false,
                    said,
                    new Drawn("", Map.of(), Map.of(), drawing.said(), why),
                    drawing.layouts(),
                    layout);
        }
        Scene scene = granted.value();
        String title = said.getOrDefault("title", "Drawing");
        SvgParts parts = inParts && SvgParts.isLarge(scene) ? SvgParts.of(scene) : null;
        String svg = parts == null ? SvgWriter.write(scene, title) : parts.first(title);
        return new Sheet(
                "DRAWING",
                List.of(),
                false,
                said,
                new Drawn(svg, scene.layers(), scene.notDrawn(), scene.said(), "", parts == null ? 0 : parts.rest()),
                drawing.layouts(),
                layout);
    }

    /** The scene of a layout; a refusal is remembered by content and layout, for to find out takes as long as to draw. */
    private Outcome<Scene> scene(StoredContent content, DxfDrawing drawing, String layout) {
        String key = content.hash().hex() + layout;
        synchronized (refused) {
            if (refused.containsKey(key)) return Outcome.refused(refused.get(key));
        }
        Outcome<Scene> read = drawing.scene(layout, 0);
        read.refusal().ifPresent(r -> {
            synchronized (refused) {
                refused.put(key, r);
            }
        });
        return read;
    }

    /** The sheet with a ring at the place of each finding. */
    public Optional<String> marked(StoredContent content, List<Finding> findings) {
        List<Box> places = findings.stream().map(Finding::box).toList();
        return sheets.opened(content).flatMap(Sheets::scene).map(scene -> RingedSvg.of(scene, places));
    }

    /** What can be measured on a sheet, with its title block's scale; nothing for what is no drawing. */
    public Optional<Geometry> geometry(StoredContent content, Optional<String> layout) {
        return sheets.opened(content).flatMap(drawing -> {
            String wanted = layout.orElse(drawing.sheet());
            // The title block's scale is that of the sheet; behind a layout's windows things are drawn in their own
            // size.
            double scale = wanted.equals(drawing.sheet()) ? sheets.scale(drawing) : 1;
            return drawing.scene(wanted, 0) instanceof Outcome.Granted<Scene> scene
                    ? Optional.of(Geometry.of(scene.value(), scale))
                    : Optional.empty();
        });
    }

    private Sheet text(StoredContent content) {
        String text = new String(contents.bytes(content, TEXT), StandardCharsets.UTF_8).replace("\uFFFD", "\u00b7");
        return new Sheet("TEXT", text.lines().limit(600).toList(), content.size() > TEXT, Map.of(), Drawn.NOTHING);
    }

    /** A small picture of a drawing as SVG; nothing for what cannot be drawn. */
    public Optional<String> thumbnail(StoredContent content) {
        String hash = content.hash().hex();
        synchronized (thumbnails) {
            String kept = thumbnails.get(hash);
            if (kept != null) return Optional.of(kept);
        }
        if (content.size() > LARGEST_THUMBNAIL) return Optional.empty();
        Optional<Scene> scene = sheets.opened(content)
                .flatMap(drawing -> scene(content, drawing, drawing.sheet()) instanceof Outcome.Granted<Scene> granted
                        ? Optional.of(granted.value())
                        : Optional.empty())
                .filter(s -> !s.primitives().isEmpty());
        if (scene.isEmpty()) return Optional.empty();
        String svg = SvgWriter.thumbnail(scene.get());
        synchronized (thumbnails) {
            thumbnails.put(hash, svg);
        }
        return Optional.of(svg);
    }
}
