package mintshelf.app.page.document;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.FileAnswer;
import mintshelf.app.page.Pages;
import mintshelf.app.page.ZipAnswer;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.StrayStore.Stray;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.document.Geometry;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadMargin;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.structure.ReadModel;
import mintshelf.core.document.VersionName;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/**
 * The bytes of versions and strays. What people bring is never served as a page of ours: it leaves as an attachment, or as a
 * picture in a sandbox that runs nothing.
 */
@Controller
public class FilePage {
    /** For what has no picture: the outline of a folded paper. */
    private static final String EMPTY = "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 42 30\">"
            + "<path d=\"M12 4h13l6 6v16H12z M25 4v6h6\" fill=\"#fff\" stroke=\"#5a6a64\" stroke-width=\"1\"/></svg>";

    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final ReadSheet sheets;
    private final ReadMargin margin;
    private final FetchFiles fetch;
    private final ZipAnswer zip;
    private final FileAnswer files;
    private final ReadModel models;

    public FilePage(
            ReadDocument read,
            ReadVersion readVersion,
            ReadSheet sheets,
            ReadMargin margin,
            FetchFiles fetch,
            ZipAnswer zip,
            FileAnswer files,
            ReadModel models) {
        this.read = read;
        this.readVersion = readVersion;
        this.sheets = sheets;
        this.margin = margin;
        this.fetch = fetch;
        this.zip = zip;
        this.files = files;
        this.models = models;
    }

    /** The lines and arcs of a version's sheet, for measuring in the page. */
    @GetMapping("/documents/{id}/versions/{number}/geometry")
    @ResponseBody
    Geometry geometry(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<String> layout) {
        return sheets.geometry(readVersion.version(actor, id, number).drawn().content(), layout)
                .orElseThrow(NotThere::new);
    }

    @GetMapping("/documents/{id}/versions/{number}/file")
    void file(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        VersionRow version = fetch.fetch(actor, id, number);
        files.send(version.content(), version.fileName(), true, request, response);
    }

    @GetMapping("/documents/{id}/versions/{number}/picture")
    void picture(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        VersionRow version = readVersion.version(actor, id, number).drawn();
        if (!version.content().kind().isPicture()) throw new NotThere();
        files.send(version.content(), version.fileName(), false, request, response);
    }

    /** What was made of a released version: its PDF, copies of it, the tables of a notice. */
    @GetMapping("/documents/{id}/versions/{number}/{format:pdf|csv|dxf|svg|png|step|xlsx|docx|xml}")
    void output(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @PathVariable String format,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        StoredContent made = readVersion.output(actor, id, number, format.toUpperCase(Locale.ROOT));
        VersionRow version = readVersion.version(actor, id, number);
        Seen seen = read.view(actor, id).seen();
        String name = readVersion.named(seen, version, format);
        if (!format.equals("pdf")) margin.refuseOutOfForce(actor, seen, version);
        Optional<byte[]> marked = format.equals("pdf") ? margin.marked(actor, seen, version, made) : Optional.empty();
        if (marked.isPresent()) files.send(marked.get(), name, response);
        else files.send(made, name, true, request, response);
    }

    /**
     * A page of a PDF as a picture.
     *
     * @param page from 1 on; without it the first one, for a page of the shelf; with it large enough to be read
     */
    @GetMapping("/documents/{id}/versions/{number}/page")
    void page(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<Integer> page,
            HttpServletResponse response)
            throws IOException {
        VersionRow row = readVersion.version(actor, id, number).drawn();
        if (!PdfSheets.isPaper(row.content())) throw new NotThere();
        byte[] png = sheets.page(row.content(), page.orElse(1), page.isPresent());
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, max-age=600");
        response.setContentType("image/png");
        response.getOutputStream().write(png);
    }

    /** A small picture for lists. It is made by us; nothing of the file passes into it but numbers and escaped text. */
    @GetMapping("/documents/{id}/versions/{number}/thumbnail")
    void thumbnail(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        VersionRow version = readVersion.version(actor, id, number).drawn();
        if (version.content().kind().isPicture()) {
            files.send(version.content(), version.fileName(), false, request, response);
            return;
        }
        Optional<byte[]> made = models.picture(version.content());
        if (made.isPresent()) {
            response.setHeader(HttpHeaders.CACHE_CONTROL, "private, max-age=600");
            response.setContentType("image/png");
            response.getOutputStream().write(made.get());
            return;
        }
        Optional<ReadModel.Lines> lines = models.lines(actor, id, number);
        String tag = lines.map(l -> "\"m1-" + l.tag() + "\"")
                .orElse("\"t2-" + version.content().hash().hex() + "\"");
        response.setHeader(HttpHeaders.ETAG, tag);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, max-age=600");
        response.setHeader("Content-Security-Policy", FileAnswer.SANDBOX);
        if (tag.equals(request.getHeader(HttpHeaders.IF_NONE_MATCH))) {
            response.setStatus(304);
            return;
        }
        byte[] svg = lines.map(l -> l.svg().get())
                .orElseGet(() -> sheets.thumbnail(version.content()))
                .orElse(EMPTY)
                .getBytes(StandardCharsets.UTF_8);
        response.setContentType("image/svg+xml");
        response.getOutputStream().write(svg);
    }

    @GetMapping("/strays/{id}/file")
    void stray(Actor actor, @PathVariable long id, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        Stray stray = readVersion.stray(actor, id);
        files.send(stray.content(), stray.fileName(), true, request, response);
    }

    /** The latest files of several documents in one archive; equal names get a number. */
    @GetMapping("/files.zip")
    void zip(
            Actor actor,
            @RequestParam String items,
            @RequestParam(required = false) String folders,
            HttpServletResponse response)
            throws IOException {
        List<Packed> files = fetch.fetchLatest(actor, Pages.ids(items), folders != null);
        zip.send("mint-shelf.zip", files, Optional.empty(), response);
    }
}
