package mintshelf.app.use.redline;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.SetRemarks;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Redlines.Paper;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import org.springframework.stereotype.Service;

/** Remarks as the page of a sheet shows them. Whoever sees only what is released finds none, and no page of them. */
@Service
public class ReadRemarks {
    private static final int ROUNDS = 500;

    private final Sight sight;
    private final VersionStore versions;
    private final Redlines redlines;
    private final RoundStore rounds;

    public ReadRemarks(Sight sight, VersionStore versions, Redlines redlines, RoundStore rounds) {
        this.sight = sight;
        this.versions = versions;
        this.redlines = redlines;
        this.rounds = rounds;
    }

    /** Remarks on a version's sheet. */
    public record OnSheet(Seen seen, VersionRow version, Paper paper, List<Placed> placed) {}

    public Seen seen(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        return seen;
    }

    /** With what a version can be marked, on its sheet or the layout or page that is named. */
    public List<Tool> tools(VersionRow version, String layout) {
        return redlines.paper(version, layout).map(Paper::tools).orElse(List.of());
    }

    /** @param layout of the drawing; empty for the sheet */
    public OnSheet on(Actor actor, long item, int number, String layout) {
        Seen seen = seen(actor, item);
        VersionRow shown =
                versions.version(item, number).orElseThrow(NotThere::new).drawn();
        Paper paper = redlines.paper(shown, layout).orElseThrow(NotThere::new);
        return new OnSheet(seen, shown, paper, redlines.on(shown, paper, redlines.of(seen)));
    }

    /** By remark the chapter that it stands in; nothing for those on what has no chapters. */
    public Map<Long, String> chapters(OnSheet on) {
        Map<Long, String> chapters = new HashMap<>();
        on.placed()
                .forEach(p -> redlines.chapter(
                                on.version(), on.paper(), p.followed().mark())
                        .ifPresent(c -> chapters.put(p.remark().id(), c)));
        return chapters;
    }

    /**
     * Remarks on another page or layout than the one that is shown, or on what this version no longer has.
     *
     * @param href where the first open one is seen, else the first
     */
    public record Elsewhere(String layout, int count, int open, String href) {}

    /** By layout, in the order of their first remarks; of those made on the shown version or before. */
    public List<Elsewhere> elsewhere(OnSheet on, int number) {
        Map<String, List<Remark>> all = new LinkedHashMap<>();
        redlines.of(on.seen()).stream()
                .filter(r ->
                        r.version() <= number && !r.layout().equals(on.paper().layout()))
                .forEach(r ->
                        all.computeIfAbsent(r.layout(), k -> new ArrayList<>()).add(r));
        List<Elsewhere> found = new ArrayList<>();
        all.forEach((layout, remarks) -> {
            List<Remark> open = remarks.stream().filter(r -> r.state().isOpen()).toList();
            Remark first = open.isEmpty() ? remarks.get(0) : open.get(0);
            String chapter = redlines.paper(on.version(), layout)
                    .flatMap(there -> redlines.chapter(on.version(), there, first.mark()))
                    .map(c -> " (" + c + ")")
                    .orElse("");
            found.add(new Elsewhere(
                    layout.isEmpty() ? "the picture" : layout + chapter,
                    remarks.size(),
                    open.size(),
                    SetRemarks.address(first)));
        });
        return found;
    }

    /** The rounds of a document, the first one first: by it they are numbered. */
    public List<Long> rounds(long item) {
        List<Long> all = new ArrayList<>(rounds.roundsOf(item, ROUNDS));
        Collections.sort(all);
        return all;
    }

    /** Where the remarks of a document are seen: what the first open one stands on; without any what can be marked, else its page. */
    public String first(Actor actor, long item) {
        Seen seen = seen(actor, item);
        Optional<Remark> open =
                redlines.of(seen).stream().filter(r -> r.state().isOpen()).findFirst();
        if (open.isPresent()) return place(actor, open.get(), List.of());
        String document = "/documents/" + item;
        return versions.version(item, seen.version())
                .flatMap(v -> redlines.paper(v, ""))
                .map(paper -> document + "/versions/" + seen.version() + (paper.isSpace() ? "/model" : "/sheet"))
                .orElse(document);
    }

    /** Where a remark is seen on the version that the actor gets; on its own where that one has no such page or layout. */
    public String address(Actor actor, Remark remark) {
        return place(actor, remark, List.of("remark=" + remark.id()));
    }

    private String place(Actor actor, Remark remark, List<String> wanted) {
        int latest = Math.max(remark.version(), seen(actor, remark.item()).version());
        boolean there = versions.version(remark.item(), latest)
                .flatMap(v -> redlines.paper(v, remark.layout()))
                .isPresent();
        int now = there ? latest : remark.version();
        boolean space = remark.mark().space().isPresent();
        List<String> query = new ArrayList<>(wanted);
        boolean usual = versions.version(remark.item(), now)
                .flatMap(v -> redlines.paper(v, ""))
                .filter(p -> p.layout().equals(remark.layout()))
                .isPresent();
        if (!usual) query.add("layout=" + URLEncoder.encode(remark.layout(), StandardCharsets.UTF_8));
        return "/documents/" + remark.item() + "/versions/" + now + (space ? "/model" : "/sheet")
                + (query.isEmpty() ? "" : "?" + String.join("&", query));
    }
}
