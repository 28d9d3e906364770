package mintshelf.app.page.compare;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Compared;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareModels;
import mintshelf.app.use.compare.ComparePapers;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.compare.CountDifferences;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadMargin;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.search.Search;
import mintshelf.core.document.VersionName;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** Two sheets and what changed between them. */
@Controller
class ComparePage {
    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final CompareSheets compare;
    private final Search search;
    private final ReadMargin margin;
    private final ComparePapers papers;
    private final CompareModels models;
    private final CountDifferences count;

    ComparePage(
            ReadDocument read,
            ReadVersion readVersion,
            CompareSheets compare,
            Search search,
            ReadMargin margin,
            ComparePapers papers,
            CompareModels models,
            CountDifferences count) {
        this.count = count;
        this.models = models;
        this.papers = papers;
        this.margin = margin;
        this.search = search;
        this.read = read;
        this.readVersion = readVersion;
        this.compare = compare;
    }

    /** One of the two sides. */
    public record Side(Seen seen, VersionRow version, Optional<ReadMargin.Mark> outOf) {}

    /**
     * Compares a version with another one, of the same document or of {@code with}; without {@code old} with what a reviewer would
     * compare it with.
     */
    @GetMapping("/documents/{id}/versions/{number}/compare")
    String show(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<VersionName> old,
            @RequestParam Optional<Long> with,
            @RequestParam Optional<Integer> pair,
            Model model) {
        VersionRow now = readVersion.version(actor, id, number);
        long other = with.orElse(id);
        ReadDocument.View view = read.view(actor, id);
        ReadDocument.View before = other == id ? view : read.view(actor, other);
        // Without a wish: what a reviewer compares with, if this person may see it; else the latest of the other
        // document.
        VersionName wanted = old.orElseGet(() -> other != id
                ? VersionName.main(before.seen().version())
                : now.name().isTrial()
                        ? beforeOnTrial(now)
                        : compare.before(id, now)
                                .map(VersionRow::number)
                                .filter(n -> view.versions().stream().anyMatch(v -> v.number() == n))
                                .map(VersionName::main)
                                .orElse(number));
        VersionRow past = readVersion.version(actor, other, wanted);
        // Models are held against each other where they can be turned.
        if (CompareModels.are(past.drawn().content(), now.drawn().content()))
            return "redirect:/documents/" + id + "/versions/" + number + "/model?with="
                    + past.name().address() + (other == id ? "" : "&of=" + other);
        Optional<ComparePapers.Papers> both = papers.of(
                past.drawn().content(),
                now.drawn().content(),
                pair,
                "/documents/" + id + "/versions/" + number + "/page-ink?old="
                        + past.name().address() + (other == id ? "" : "&with=" + other));
        Optional<Compared> compared = both.map(ComparePapers.Papers::shown)
                .or(() -> compare.draw(past.drawn().content(), now.drawn().content()));
        model.addAttribute("papers", both.orElse(null));
        model.addAttribute("now", side(actor, view.seen(), now));
        model.addAttribute("old", side(actor, before.seen(), past));
        model.addAttribute("versions", view.versions());
        model.addAttribute(
                "oldVersions",
                Stream.concat(before.versions().stream(), readVersion.tried(actor, other).stream())
                        .toList());
        model.addAttribute("compared", compared.orElse(null));
        model.addAttribute("same", now.content().hash().equals(past.content().hash()));
        return "compare/page";
    }

    /** The first one began at a version of its document. */
    private static VersionName beforeOnTrial(VersionRow now) {
        return now.number() > 1
                ? new VersionName(now.trial(), now.number() - 1)
                : VersionName.main(now.base().orElse(1));
    }

    /** A part of two pages that lie over each other. */
    @GetMapping("/documents/{id}/versions/{number}/page-ink")
    void ink(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam VersionName old,
            @RequestParam Optional<Long> with,
            @RequestParam int pair,
            @RequestParam String part,
            HttpServletResponse response)
            throws IOException {
        VersionRow now = readVersion.version(actor, id, number).drawn();
        VersionRow past = readVersion.version(actor, with.orElse(id), old).drawn();
        if (!PdfSheets.isPaper(now.content()) || !PdfSheets.isPaper(past.content())) throw new NotThere();
        byte[] png = papers.ink(past.content(), now.content(), pair, part);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, max-age=600");
        response.setContentType("image/png");
        response.getOutputStream().write(png);
    }

    /** How many differences two versions have, as a part of a page that names them; nothing where they are neither sheets nor models. */
    @GetMapping("/documents/{id}/versions/{number}/differences")
    String differences(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam VersionName old,
            HttpServletResponse response,
            Model model) {
        VersionRow now = readVersion.version(actor, id, number);
        VersionRow past = readVersion.version(actor, id, old);
        Optional<Integer> count = this.count.of(past, now);
        if (count.isEmpty()) {
            response.setStatus(204);
            return null;
        }
        model.addAttribute("count", count.get());
        return "compare/_count";
    }

    private Side side(Actor actor, Seen seen, VersionRow version) {
        return new Side(seen, version, margin.of(actor, seen, version));
    }

    /** Compares with another document, found by its number. */
    @GetMapping("/documents/{id}/versions/{number}/compare-with")
    String other(
            Actor actor,
            @PathVariable long id,
            @PathVariable("number") VersionName version,
            @RequestParam("number") String number,
            Model model) {
        readVersion.version(actor, id, version);
        long other = search.find(actor, Search.Wish.first(number, 1)).hits().stream()
                .map(hit -> hit.seen().spine().id())
                .findFirst()
                .orElseThrow(() -> Refused.because(
                        "compare.none", "No document “" + number + "” is shown to you.", "Look its number up first."));
        return "redirect:/documents/" + id + "/versions/" + version + "/compare?with=" + other;
    }

    /** What a file that was brought for check-in changes, as a part of the check-in page. */
    @GetMapping("/check-in/differences")
    String brought(
            Actor actor,
            @RequestParam long document,
            @RequestParam String upload,
            @RequestParam Optional<Long> trial,
            Model model) {
        Optional<Compared> sheets = compare.brought(actor, document, upload, trial);
        model.addAttribute("compared", sheets.orElse(null));
        model.addAttribute(
                "modelled",
                sheets.isPresent()
                        ? null
                        : models.brought(actor, document, upload, trial).orElse(null));
        return "compare/_brought";
    }
}
