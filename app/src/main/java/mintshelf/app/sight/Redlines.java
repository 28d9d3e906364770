package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Recent;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Kept;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.redline.Followed;
import mintshelf.core.redline.Following;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.RedlineSvg;
import mintshelf.core.redline.Remark;
import org.springframework.stereotype.Component;

/**
 * Remarks as they stand on a version of a sheet. Whoever sees only what is released sees none: they are words of people at work.
 * Contents never change, so that where a mark stands on one is kept by the content's hash.
 */
@Component
public class Redlines {
    private static final int KEPT_PAPERS = 500;
    private static final int KEPT_MARKS = 20_000;

    private final Sheets sheets;
    private final RemarkStore remarks;
    private final VersionStore versions;
    private final Map<String, Paper> papers = Recent.most(KEPT_PAPERS);
    private final Map<String, Followed> followed = Recent.most(KEPT_MARKS);

    public Redlines(Sheets sheets, RemarkStore remarks, VersionStore versions) {
        this.sheets = sheets;
        this.remarks = remarks;
        this.versions = versions;
    }

    /**
     * What marks are put on.
     *
     * @param layout of the drawing
     * @param box all that is drawn
     * @param scale of its views, as the title block says it
     */
    public record Paper(String layout, Box box, Zones zones, double scale) {
        /** How long a millimetre of the sheet is in its units; of what is no sheet a part of its size. */
        public double millimetre() {
            if (!zones.format().isEmpty()) return zones.millimetre();
            double size = Math.max(box.width(), box.height());
            return size > 0 ? size / 420 : 1;
        }
    }

    /** All remarks on a document, the oldest first. */
    public List<Remark> of(Seen seen) {
        return seen.all() ? remarks.of(seen.spine().id()) : List.of();
    }

    /** A drawing's paper; nothing for what is no drawing, or has no such layout. An empty name is the sheet itself. */
    public Optional<Paper> paper(StoredContent content, String layout) {
        if (content.kind() != ContentKind.DXF) return Optional.empty();
        String key = content.hash().hex() + layout;
        Paper known = papers.get(key);
        if (known != null) return Optional.of(known);
        Optional<Paper> found = read(content, layout).map(Read::paper);
        found.ifPresent(p -> papers.put(key, p));
        return found;
    }

    /** A paper with what is drawn on it. */
    public record Read(Paper paper, Scene scene) {}

    public Optional<Read> read(StoredContent content, String layout) {
        return sheets.opened(content).flatMap(drawing -> {
            String name = layout.isEmpty() ? drawing.sheet() : layout;
            if (!drawing.layouts().contains(name)) return Optional.empty();
            if (!(drawing.scene(name, 0) instanceof Outcome.Granted<Scene> scene)) return Optional.empty();
            double scale = name.equals(drawing.sheet()) ? sheets.scale(drawing) : 1;
            Paper paper = new Paper(name, scene.value().extents(), Zones.of(scene.value()), scale);
            return Optional.of(new Read(paper, scene.value()));
        });
    }

    /**
     * Remarks as they stand on a version: those made on it or before, on the same layout. Closed ones first, so that open ones lie
     * over them. One comparison for each version that marks come from, once.
     */
    public List<RedlineSvg.Placed> on(VersionRow shown, Paper paper, List<Remark> all) {
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
                at = from.map(s -> s.follow(remark.mark()))
                        .orElseGet(() -> new Followed(
                                remark.mark(),
                                Followed.Fate.KEPT,
                                "stands where it was: version " + remark.version() + " cannot be read"));
                if (from.isPresent()) followed.put(key, at);
            }
            // Its look may have been changed since it was followed.
            Followed now = new Followed(at.mark().with(remark.mark().look()), at.fate(), at.says());
            placed.add(new RedlineSvg.Placed(remark, now));
        }
        return placed;
    }

    /** How marks of an earlier version stand: as they are where its bytes are the same. */
    private record Since(Optional<Kept> kept) {
        Followed follow(Mark mark) {
            return kept.map(k -> Following.follow(mark, k)).orElseGet(() -> Followed.own(mark));
        }
    }

    /** Nothing where one of the two cannot be read. */
    private Optional<Since> kept(Remark remark, int number, VersionRow shown, String layout) {
        Optional<VersionRow> from = versions.version(remark.item(), number);
        if (from.isEmpty()) return Optional.empty();
        if (from.get().content().hash().equals(shown.content().hash())) return Optional.of(new Since(Optional.empty()));
        Optional<Read> now = read(shown.content(), layout);
        return read(from.get().content(), layout)
                .flatMap(old -> now.map(n -> new Since(Optional.of(
                        Kept.between(old.scene(), n.scene(), n.paper().scale())))));
    }
}
