package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.PictureSize;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Kept;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.pdf.PdfOutline;
import mintshelf.core.drawing.pdf.PdfPages;
import mintshelf.core.drawing.pdf.PdfPages.Pages;
import mintshelf.core.drawing.pdf.PdfWhere;
import mintshelf.core.redline.Followed;
import mintshelf.core.redline.Following;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.RedlineSvg;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Tool;
import org.springframework.stereotype.Component;

/**
 * Remarks as they stand on a version: of a drawing, a page, a picture, a model. Whoever sees only what is released sees none: they are words of people at work.
 * Contents never change, so that where a mark stands on one is kept by the content's hash.
 */
@Component
public class Redlines {
    /** The layout of a model, which has no sheet. */
    public static final String SPACE = "3D";

    private static final Scene BARE = new Scene(List.of(), Map.of(), Map.of());
    private static final int KEPT_PAPERS = 500;
    private static final int KEPT_MARKS = 20_000;

    private final Sheets sheets;
    private final PdfSheets pdfs;
    private final Contents contents;
    private final RemarkStore remarks;
    private final VersionStore versions;
    private final Map<String, Paper> papers = Recent.most(KEPT_PAPERS);
    private final Map<String, Followed> followed = Recent.most(KEPT_MARKS);

    public Redlines(Sheets sheets, PdfSheets pdfs, Contents contents, RemarkStore remarks, VersionStore versions) {
        this.pdfs = pdfs;
        this.contents = contents;
        this.sheets = sheets;
        this.remarks = remarks;
        this.versions = versions;
    }

    /**
     * What marks are put on.
     *
     * @param layout of the drawing, "Page 2" of a PDF, {@link #SPACE} of a model; empty of a picture
     * @param box all that is drawn: in millimetres of a page, in pixels of a picture
     * @param scale of its views, as the title block says it
     * @param measured whether sizes can be told on it
     */
    public record Paper(String layout, Box box, Zones zones, double scale, boolean measured) {
        public boolean isSpace() {
            return layout.equals(SPACE);
        }

        /** With what it can be marked. A picture does not say how large a dot is: it has no sizes. */
        public List<Tool> tools() {
            return Arrays.stream(Tool.values())
                    .filter(t -> isSpace() ? Space.takes(t) : measured || t != Tool.SIZE)
                    .toList();
        }

        /** How long a millimetre of the sheet is in its units; of what is no sheet a part of its size. */
        public double millimetre() {
            if (!zones.format().isEmpty()) return zones.millimetre();
            double size = Math.max(box.width(), box.height());
            // Letters on a photograph are read against more than lines.
            return size > 0 ? size / (measured ? 420 : 240) : 1;
        }
    }

    /** All remarks on a document, the oldest first. */
    public List<Remark> of(Seen seen) {
        return seen.all() ? remarks.of(seen.spine().id()) : List.of();
    }

    /** What a version's marks are put on; nothing where it cannot be marked, or has no such layout. An empty name is the sheet itself. */
    public Optional<Paper> paper(VersionRow own, String layout) {
        VersionRow version = own.drawn();
        // The same bytes are a model under one name and none under another.
        String key = version.content().hash().hex() + ModelFormat.of(version).orElse("") + " " + layout;
        Paper known = papers.get(key);
        if (known != null) return Optional.of(known);
        Optional<Paper> found = read(version, layout).map(Read::paper);
        found.ifPresent(p -> papers.put(key, p));
        return found;
    }

    /** A paper with what is drawn on it, as far as that is known thing by thing. */
    public record Read(Paper paper, Scene scene) {
        /** Around what is drawn; of what is not known thing by thing the paper itself. */
        public Box extents() {
            return scene.primitives().isEmpty() ? paper.box() : scene.extents();
        }
    }

    public Optional<Read> read(VersionRow own, String layout) {
        VersionRow version = own.drawn();
        StoredContent content = version.content();
        if (ModelFormat.of(version).isPresent()) {
            Paper space = new Paper(SPACE, Box.EMPTY, Zones.of(Box.EMPTY), 1, true);
            return layout.isEmpty() || layout.equals(SPACE) ? Optional.of(new Read(space, BARE)) : Optional.empty();
        }
        if (PdfSheets.isPaper(content)) return page(content, layout);
        if (content.kind().isPicture()) return layout.isEmpty() ? picture(content) : Optional.empty();
        return drawing(content, layout);
    }

    private Optional<Read> drawing(StoredContent content, String layout) {
        return sheets.opened(content).flatMap(drawing -> {
            String name = layout.isEmpty() ? drawing.sheet() : layout;
            if (!drawing.layouts().contains(name)) return Optional.empty();
            if (!(drawing.scene(name, 0) instanceof Outcome.Granted<Scene> scene)) return Optional.empty();
            double scale = name.equals(drawing.sheet()) ? sheets.scale(drawing) : 1;
            Paper paper = new Paper(name, scene.value().extents(), Zones.of(scene.value()), scale, true);
            return Optional.of(new Read(paper, scene.value()));
        });
    }

    private Optional<Read> page(StoredContent content, String layout) {
        if (!(pdfs.pages(content) instanceof Outcome.Granted<Pages> pages)) return Optional.empty();
        int index = layout.isEmpty() ? 0 : names(pages.value()).indexOf(layout);
        if (index < 0) return Optional.empty();
        PdfPages.Page page = pages.value().pages().get(index);
        Box box = new Box(0, 0, page.width(), page.height());
        return Optional.of(new Read(new Paper(name(index), box, Zones.of(box), 1, true), BARE));
    }

    private static String name(int index) {
        return "Page " + (index + 1);
    }

    /** The number of a page, of its name. */
    public static int pageOf(String layout) {
        return Integer.parseInt(layout.substring(layout.indexOf(' ') + 1));
    }

    /** The layouts of a PDF. */
    public static List<String> names(Pages pages) {
        return IntStream.range(0, pages.pages().size()).mapToObj(Redlines::name).toList();
    }

    /** How marks of a paper lie on a page of PDF: of the PDF itself, else of one that is written of the sheet. */
    public PdfWhere where(VersionRow own, Paper paper) {
        VersionRow version = own.drawn();
        if (version.content().kind() != ContentKind.PDF) {
            return PdfWhere.sheet(
                    read(version, paper.layout()).map(Read::extents).orElse(paper.box()));
        }
        int index = pageOf(paper.layout()) - 1;
        Pages pages = pdfs.pages(version.content()).orElseThrow(Refused::new);
        return PdfWhere.page(index, pages.pages().get(index)).orElseThrow(Refused::new);
    }

    /** The chapter of a PDF that a mark on one of its pages stands in; nothing for what has no chapters. */
    public Optional<String> chapter(VersionRow own, Paper paper, Mark mark) {
        StoredContent content = own.drawn().content();
        if (content.kind() != ContentKind.PDF) return Optional.empty();
        return PdfOutline.around(
                        pdfs.chapters(content),
                        pageOf(paper.layout()),
                        paper.box().maxY() - mark.at().y())
                .map(PdfOutline.Chapter::title);
    }

    private Optional<Read> picture(StoredContent content) {
        return PictureSize.of(contents.bytes(content, PictureSize.SAMPLE)).map(size -> {
            Box box = new Box(0, 0, size.width(), size.height());
            return new Read(new Paper("", box, Zones.of(Box.EMPTY), 1, false), BARE);
        });
    }

    /**
     * Remarks as they stand on a version: those made on it or before, on the same layout. Closed ones first, so that open ones lie
     * over them. One comparison for each version that marks come from, once.
     */
    public List<RedlineSvg.Placed> on(VersionRow own, Paper paper, List<Remark> all) {
        VersionRow shown = own.drawn();
        List<Remark> here = all.stream()
                .filter(r -> r.version() <= shown.number() && r.layout().equals(paper.layout()))
                .sorted(Comparator.comparing((Remark r) -> r.state().isOpen()).thenComparing(Remark::id))
                .toList();
        Map<Integer, Optional<Since>> since = new HashMap<>();
        List<RedlineSvg.Placed> placed = new ArrayList<>();
        for (Remark remark : here) {
            String key = remark.id() + " " + shown.content().hash().hex();
            Followed at = remark.version() == shown.number() ? Followed.own(remark.mark()) : followed.get(key);
            if (at == null) {
                Optional<Since> from =
                        since.computeIfAbsent(remark.version(), n -> kept(remark, n, shown, paper.layout()));
                at = from.map(s -> s.follow(remark.mark())).orElseGet(() -> still(remark, shown));
                if (from.isPresent()) followed.put(key, at);
            }
            // Its look may have been changed since it was followed.
            Followed now = new Followed(at.mark().with(remark.mark().look()), at.fate(), at.says());
            placed.add(new RedlineSvg.Placed(remark, now));
        }
        return placed;
    }

    /** Nothing is known thing by thing of a page, a picture or a model: there a mark stays, and says of which version it is. */
    private static Followed still(Remark remark, VersionRow shown) {
        String says = shown.content().kind() == ContentKind.DXF
                ? "stands where it was: version " + remark.version() + " cannot be read"
                : "stands where it stood on version " + remark.version();
        return new Followed(remark.mark(), Followed.Fate.KEPT, says);
    }

    /** How marks of an earlier version stand: as they are where its bytes are the same. */
    private record Since(Optional<Kept> kept) {
        Followed follow(Mark mark) {
            return kept.map(k -> Following.follow(mark, k)).orElseGet(() -> Followed.own(mark));
        }
    }

    /** Nothing where one of the two cannot be read. */
    private Optional<Since> kept(Remark remark, int number, VersionRow shown, String layout) {
        Optional<VersionRow> from = versions.version(remark.item(), number).map(VersionRow::drawn);
        if (from.isEmpty()) return Optional.empty();
        if (from.get().content().hash().equals(shown.content().hash())) return Optional.of(new Since(Optional.empty()));
        if (shown.content().kind() != ContentKind.DXF || from.get().content().kind() != ContentKind.DXF) {
            return Optional.empty();
        }
        Optional<Read> now = read(shown, layout);
        return read(from.get(), layout)
                .flatMap(old -> now.map(n -> new Since(Optional.of(
                        Kept.between(old.scene(), n.scene(), n.paper().scale())))));
    }
}
