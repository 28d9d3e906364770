package mintshelf.app.api;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.FileAnswer;
import mintshelf.app.sight.DeskPlaces;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.search.Ask;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.search.Search;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.trial.TrialHolds;
import mintshelf.core.document.VersionName;
import mintshelf.core.structure.StructureView;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Shelves, documents, versions, contents, structure, where used: to be read by programs. */
@RestController
@RequestMapping("/api/v1")
class DocumentApi {
    /** What the main line is called where a line is named. */
    private static final String MAIN = "main";

    private static final int PAGE = 100;

    private final ReadShelf shelves;
    private final ReadDocument read;
    private final Sight sight;
    private final Search search;
    private final ReadStructure structure;
    private final ReadWhereUsed used;
    private final FetchFiles fetch;
    private final FileAnswer files;
    private final TrialHolds tried;

    DocumentApi(
            ReadShelf shelves,
            ReadDocument read,
            Sight sight,
            Search search,
            ReadStructure structure,
            ReadWhereUsed used,
            FetchFiles fetch,
            FileAnswer files,
            TrialHolds tried) {
        this.shelves = shelves;
        this.read = read;
        this.sight = sight;
        this.search = search;
        this.structure = structure;
        this.used = used;
        this.fetch = fetch;
        this.files = files;
        this.tried = tried;
    }

    record Me(long id, String name, String login) {}

    @GetMapping("/me")
    Me me(Actor actor) {
        return new Me(actor.person(), actor.name(), actor.login());
    }

    record Shelf(long id, String name, String note, boolean library, int documents) {}

    @GetMapping("/shelves")
    List<Shelf> shelves(Actor actor) {
        return shelves.shelves(actor).stream()
                .map(s -> new Shelf(
                        s.shelf().id(),
                        s.shelf().name(),
                        s.shelf().note(),
                        s.shelf().library(),
                        s.documents()))
                .toList();
    }

    record Held(long id, String by, boolean mine, String desk, String since, String purpose) {}

    /**
     * A document as this person gets it.
     *
     * @param path where it lies on a desk
     * @param version number of the version that this person gets, on its line
     * @param line what the line of a trial is called on which it is looked at, "t1"; null for the main one
     * @param gets the version as addresses name it: "7", "t1-2"; on a trial on which nothing was checked in the one at which it begins
     */
    record Document(
            long id,
            String number,
            String title,
            String kind,
            String path,
            String revision,
            String stage,
            int version,
            String line,
            String gets,
            String sha256,
            long size,
            Held hold) {
        static Document of(Actor actor, Seen seen) {
            var d = seen.document();
            boolean head = seen.version() == d.head().number();
            Held hold = seen.all()
                    ? d.holder()
                            .map(h -> new Held(
                                    h.hold(),
                                    h.name(),
                                    h.person() == actor.person(),
                                    h.desk(),
                                    h.since().toString(),
                                    h.purpose()))
                            .orElse(null)
                    : null;
            return new Document(
                    d.id(),
                    d.ownNumber(),
                    d.title(),
                    seen.spine().kindCode(),
                    DeskPlaces.path(seen),
                    seen.current().shown(),
                    seen.current().stage().name(),
                    seen.version(),
                    lineOf(d),
                    seen.name().address(),
                    head ? seen.spine().content().hash().hex() : "",
                    head ? seen.spine().content().size() : 0,
                    hold);
        }
    }

    /** The line of a trial, of one that a program named; nothing for the main one. */
    static Optional<String> trial(String line) {
        return Optional.ofNullable(line).filter(l -> !l.isEmpty() && !l.equals(MAIN));
    }

    /** What the line of a trial is called; null for the main one. */
    static String lineOf(mintshelf.core.document.Document d) {
        return d.isTried() ? VersionName.line(d.trial()) : null;
    }

    record Count(String value, String q, int count) {}

    /**
     * What was found.
     *
     * @param total of all that fit
     * @param next where the next page begins, to be given as {@code after}
     * @param notUnderstood what of the search was left out, with why
     * @param alike whether nothing is written so, and what is written alike was taken
     */
    record Documents(
            List<Document> documents,
            int total,
            Integer next,
            List<String> notUnderstood,
            boolean alike,
            Map<String, List<Count>> facets) {}

    /**
     * The search with its whole syntax.
     *
     * @param facets names, with commas: "stage,kind,material"; counted are the ones that tell something
     * @param order {@code fit}, {@code number}, {@code title} or {@code changed}
     * @param after where to go on, from {@code next}
     */
    @GetMapping("/documents")
    Documents find(
            Actor actor,
            @RequestParam String q,
            @RequestParam(defaultValue = "") List<String> facets,
            @RequestParam(defaultValue = "fit") String order,
            @RequestParam(defaultValue = "0") int after,
            @RequestParam(defaultValue = "0") int from) {
        Ask.Order by = Arrays.stream(Ask.Order.values())
                .filter(o -> o.name().equalsIgnoreCase(order))
                .findFirst()
                .orElseThrow(NotThere::new);
        Search.Wish wish = new Search.Wish(q, by, false, Math.max(after, from), PAGE, !facets.isEmpty());
        Search.Found found = search.find(actor, wish);
        Map<String, List<Count>> counted = new LinkedHashMap<>();
        found.facets().stream()
                .filter(f -> facets.contains(f.key()))
                .forEach(f -> counted.put(
                        f.key(),
                        f.values().stream()
                                .map(v -> new Count(v.name(), v.narrowed(), v.hits()))
                                .toList()));
        int next = wish.from() + PAGE;
        return new Documents(
                found.hits().stream().map(h -> Document.of(actor, h.seen())).toList(),
                found.total(),
                next < found.total() && next <= Search.MOST ? next : null,
                found.question().notUnderstood(),
                found.alike(),
                counted);
    }

    @GetMapping("/documents/{id}")
    ResponseEntity<Document> document(
            Actor actor, @PathVariable long id, @RequestParam(defaultValue = MAIN) String line) {
        Seen seen =
                trial(line).map(l -> tried.onLine(actor, l, List.of(id)).get(0)).orElseGet(() -> sight.of(actor, id));
        String hold = seen.document().holder().map(h -> "-" + h.hold()).orElse("");
        return ResponseEntity.ok()
                .eTag("\"" + seen.document().head().digest().shortHex() + hold + "\"")
                .body(Document.of(actor, seen));
    }

    record Version(int number, String author, String at, String comment, String fileName, String sha256, long size) {
        static Version of(VersionRow v) {
            return new Version(
                    v.number(),
                    v.by(),
                    v.at().toString(),
                    v.comment(),
                    v.fileName(),
                    v.content().hash().hex(),
                    v.content().size());
        }
    }

    @GetMapping("/documents/{id}/versions")
    List<Version> versions(Actor actor, @PathVariable long id) {
        return read.view(actor, id).versions().stream().map(Version::of).toList();
    }

    /** The bytes; ranges are answered. The fetch is noted in the record. */
    @GetMapping("/documents/{id}/versions/{number}/content")
    void content(
            Actor actor,
            @PathVariable long id,
            @PathVariable String number,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        String range = request.getHeader(HttpHeaders.RANGE);
        // Whoever goes on in the middle of a file has fetched it before: one fetch, one entry in the record.
        boolean goesOn = range != null && !range.startsWith("bytes=0-");
        VersionName name = VersionName.of(number).orElseThrow(NotThere::new);
        VersionRow version = goesOn ? fetch.readable(actor, id, name) : fetch.fetch(actor, id, name);
        files.send(version.content(), version.fileName(), true, request, response);
    }

    /**
     * A component; without a document where it is missing, ambiguous, or not for this person's eyes.
     *
     * @param path as it is written in the file
     * @param lies where the component lies on a desk
     * @param gets the version as addresses name it: "7", "t1-2"
     */
    record Component(
            String find,
            int depth,
            String state,
            String path,
            String lies,
            int quantity,
            Long document,
            String number,
            String title,
            Integer version,
            String gets,
            Integer captured,
            int newer) {}

    record Structure(long document, String view, Integer version, List<Component> components, boolean cut) {}

    @GetMapping("/documents/{id}/structure")
    Structure structure(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "as-saved") String view,
            @RequestParam Optional<Integer> version,
            @RequestParam Optional<LocalDate> on,
            @RequestParam(defaultValue = MAIN) String line) {
        StructureView asked = StructureView.of(view).orElseThrow(NotThere::new);
        Optional<Long> trial = trial(line).map(l -> tried.named(actor, l, List.of(id)));
        ReadStructure.Structure tree =
                structure.tree(actor, id, asked, version, on.orElseGet(() -> LocalDate.now(ZoneOffset.UTC)), trial);
        List<Component> rows = tree.rows().stream()
                .map(r -> new Component(
                        r.find(),
                        r.depth(),
                        r.isHidden() ? "HIDDEN" : r.reference().state().name(),
                        r.isHidden() ? "" : r.reference().written().path(),
                        r.seen().map(DeskPlaces::path).orElse(null),
                        r.reference().written().quantity(),
                        r.seen().map(s -> s.spine().id()).orElse(null),
                        r.seen().map(s -> s.document().number()).orElse(null),
                        r.seen().map(s -> s.document().title()).orElse(null),
                        r.seen().flatMap(s -> r.shown()).map(s -> s.number()).orElse(null),
                        r.seen()
                                .flatMap(s -> r.shown()
                                        .map(v -> tree.name(s.spine().id(), v.number())
                                                .address()))
                                .orElse(null),
                        r.seen()
                                .filter(Seen::all)
                                .flatMap(s -> r.reference().component())
                                .map(c -> c.number())
                                .orElse(null),
                        r.newer()))
                .toList();
        return new Structure(id, tree.view().code(), tree.version().orElse(null), rows, tree.cut());
    }

    record Above(long document, String number, String title, int levels, Long quantity) {}

    @GetMapping("/documents/{id}/where-used")
    List<Above> whereUsed(Actor actor, @PathVariable long id) {
        return used.of(actor, id, false).above().stream()
                .sorted(Comparator.comparingInt(ReadWhereUsed.Above::steps))
                .map(a -> new Above(
                        a.seen().spine().id(),
                        a.seen().document().number(),
                        a.seen().document().title(),
                        a.steps(),
                        a.quantity().orElse(null)))
                .toList();
    }
}
