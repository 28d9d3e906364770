package mintshelf.app.page.structure;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareModels;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadMargin;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.app.use.structure.ReadModel;
import mintshelf.app.use.swap.ReadSeats;
import mintshelf.core.document.VersionName;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.reuse.Swaps;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;

/** The viewer of models, and what it loads. */
@Controller
public class ModelPage {
    /** Loaders hand pictures of surfaces on as blobs. */
    private static final String POLICY =
            "default-src 'self'; img-src 'self' data: blob:; connect-src 'self' blob:; object-src 'none';"
                    + " base-uri 'self'; form-action 'self'; frame-ancestors 'none'";

    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final ReadModel models;
    private final ReadMargin margin;
    private final ReadRemarks remarks;
    private final CompareModels compare;
    private final ReadSeats seats;

    public ModelPage(
            ReadDocument read,
            ReadVersion readVersion,
            ReadModel models,
            ReadMargin margin,
            ReadRemarks remarks,
            CompareModels compare,
            ReadSeats seats) {
        this.seats = seats;
        this.compare = compare;
        this.remarks = remarks;
        this.read = read;
        this.readVersion = readVersion;
        this.models = models;
        this.margin = margin;
    }

    /**
     * @param with another version, to be shown over this one
     * @param of the document that the other version is of; none for the same
     * @param exchanged components that are shown in the place of others, over what the version has: "old-new,old-new"
     */
    @GetMapping("/documents/{id}/versions/{number}/model")
    String viewer(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<VersionName> with,
            @RequestParam Optional<Long> of,
            @RequestParam(required = false) String latest,
            @RequestParam Optional<Long> remark,
            @RequestParam Optional<Long> round,
            @RequestParam(defaultValue = "") String exchanged,
            HttpServletResponse response,
            Model model) {
        VersionRow version = readVersion.version(actor, id, number);
        if (ModelFormat.of(version).isEmpty()) throw new NotThere();
        long other = of.filter(o -> with.isPresent()).orElse(id);
        Optional<VersionRow> over = with.map(n -> readVersion.version(actor, other, n));
        if (over.filter(v -> ModelFormat.of(v).isEmpty()).isPresent()) throw new NotThere();
        response.setHeader("Content-Security-Policy", POLICY);
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("outOf", margin.of(actor, view.seen(), version).orElse(null));
        model.addAttribute("with", with.orElse(null));
        model.addAttribute("other", other);
        model.addAttribute(
                "otherNumber",
                other == id ? "" : read.view(actor, other).seen().document().number());
        Optional<ModelComparison> words = over.flatMap(v -> words(v, version));
        model.addAttribute("words", words.orElse(null));
        model.addAttribute("latest", latest != null);
        List<Swaps.Pair> others = Swaps.Pair.many(exchanged);
        model.addAttribute("exchanged", Swaps.Pair.joined(others));
        model.addAttribute("seated", others.isEmpty() ? null : seats.of(actor, id, others));
        model.addAttribute(
                "others",
                Stream.concat(view.versions().stream(), readVersion.tried(actor, id).stream())
                        .filter(v -> !v.name().equals(number))
                        .filter(v -> ModelFormat.of(v).isPresent())
                        .filter(v -> view.seen().all())
                        .toList());
        model.addAttribute(
                "keeps",
                with.isEmpty()
                        && exchanged.isEmpty()
                        && models.wantsPicture(
                                actor, view.seen(), version.drawn().content()));
        // Marks stand on one version as it was saved: not on two at once, nor on other components than it had.
        boolean plain = with.isEmpty()
                && !number.isTrial()
                && latest == null
                && exchanged.isEmpty()
                && view.seen().all();
        model.addAttribute("remarks", plain);
        model.addAttribute(
                "mayMark", plain && MakeRemark.refusal(actor, view.seen()).isEmpty());
        model.addAttribute("tools", remarks.tools(version, ""));
        model.addAttribute("wanted", remark.orElse(null));
        model.addAttribute("round", round.orElse(null));
        return "structure/model";
    }

    /** The models are shown all the same where others are reading large ones. */
    private Optional<ModelComparison> words(VersionRow old, VersionRow now) {
        try {
            return compare.compare(old.drawn().content(), now.drawn().content());
        } catch (Refused e) {
            return Optional.empty();
        }
    }

    @GetMapping("/documents/{id}/versions/{number}/model.json")
    @ResponseBody
    ReadModel.Model model(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam(required = false) String latest,
            @RequestParam(defaultValue = "") String exchanged) {
        readVersion.version(actor, id, number);
        Map<Long, Long> others = new HashMap<>();
        Swaps.Pair.many(exchanged).forEach(p -> others.put(p.old(), p.now()));
        return models.model(actor, id, number, latest != null, others);
    }

    /** The bytes of a model for the viewer. What is only looked at is not noted as fetched. */
    @GetMapping("/documents/{id}/versions/{number}/model-file")
    void file(Actor actor, @PathVariable long id, @PathVariable VersionName number, HttpServletResponse response)
            throws IOException {
        VersionRow own = readVersion.version(actor, id, number);
        VersionRow version = own.drawn();
        if (ModelFormat.of(version).isEmpty()) throw new NotThere();
        response.setContentType("application/octet-stream");
        response.setHeader("X-Content-Type-Options", "nosniff");
        // Its own file never changes; a neutral copy may be brought anew.
        response.setHeader(
                HttpHeaders.CACHE_CONTROL,
                own.neutral().isPresent() ? "private, no-cache" : "private, max-age=31536000, immutable");
        response.setContentLengthLong(version.content().size());
        readVersion.send(version.content(), 0, version.content().size(), response.getOutputStream());
    }

    @PostMapping("/documents/{id}/versions/{number}/model-picture")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void keep(Actor actor, @PathVariable long id, @PathVariable VersionName number, HttpServletRequest request)
            throws IOException {
        // One byte more than may be: whatever else is sent is not even read.
        models.keepPicture(actor, id, number, request.getInputStream().readNBytes(ReadModel.LARGEST_PICTURE + 1));
    }
}
