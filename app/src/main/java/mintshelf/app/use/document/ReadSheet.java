package mintshelf.app.use.document;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.Spine;
import mintshelf.app.use.document.Sheet.Drawn;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfPicture;
import mintshelf.core.drawing.svg.RingedSvg;
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
    private final ReadingRoom room;

    /** Small pictures by the hash of their content, which never changes: no rule for staleness is needed. */
    private final Map<String, String> thumbnails = Recent.most(KEPT_THUMBNAILS);

    private static final int KEPT_REFUSALS = 1000;

    private final Map<String, Refusal> refused = Recent.most(KEPT_REFUSALS);

    public ReadSheet(Contents contents, Sheets sheets, ReadingRoom room) {
        this.room = room;
        this.contents = contents;
        this.sheets = sheets;
    }

    /** What a page shows of a version of a document. */
    public Sheet sheet(Spine spine, StoredContent content) {
        boolean page = spine.isChangePaper() && content.kind() == ContentKind.PDF;
        return page ? new Sheet("PAGE", List.of(), false, Map.of(), Drawn.NOTHING) : sheet(content);
    }

    /** The first page of a PDF that the shelf wrote, as PNG. What people bring is not rendered here. */
    public byte[] page(Spine spine, StoredContent content) {
        if (!spine.isChangePaper() || content.kind() != ContentKind.PDF) throw new NotThere();
        return PdfPicture.png(contents.bytes(content, LARGEST_THUMBNAIL), 1100);
    }

    /** As {@link #sheet(Spine, StoredContent)}, but a page does not wait: what takes long comes later, by itself. */
    public Sheet sheetSoon(Spine spine, StoredContent content) {
        return room.soon(() -> sheet(spine, content), LATER);
    }

    public Sheet sheetSoon(StoredContent content) {
        return room.soon(() -> sheet(content), LATER);
    }

    private static final Sheet LATER = new Sheet("LATER", List.of(), false, Map.of(), Drawn.NOTHING);

    /** What a page shows of a content. */
    public Sheet sheet(StoredContent content) {
        if (content.kind().isPicture()) return new Sheet("PICTURE", List.of(), false, Map.of(), Drawn.NOTHING);
        if (content.kind() == ContentKind.TEXT) return text(content);
        return sheets.opened(content)
                .map(drawing -> drawing(content, drawing, drawing.sheet()))
                .orElseGet(() -> card(content));
    }

    /** A layout of a drawing; the sheet itself without a wish. Not there when the drawing has no such layout. */
    public Sheet layout(StoredContent content, Optional<String> layout) {
        DxfDrawing drawing = sheets.opened(content).orElseThrow(NotThere::new);
        String wanted = layout.orElse(drawing.sheet());
        if (!drawing.layouts().contains(wanted)) throw new NotThere();
        return drawing(content, drawing, wanted);
    }

    private Sheet card(StoredContent content) {
        String why =
                content.kind() == ContentKind.DXF ? sheets.whyUnread(content).orElse("") : "";
        return new Sheet("CARD", List.of(), false, Map.of(), new Drawn("", Map.of(), Map.of(), List.of(), why));
    }

    private Sheet drawing(StoredContent content, DxfDrawing drawing, String layout) {
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
        String svg = SvgWriter.write(scene, said.getOrDefault("title", "Drawing"));
        return new Sheet(
                "DRAWING",
                List.of(),
                false,
                said,
                new Drawn(svg, scene.layers(), scene.notDrawn(), scene.said(), ""),
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
