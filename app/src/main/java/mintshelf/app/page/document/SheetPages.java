package mintshelf.app.page.document;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.CheckSheets.Held;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.check.WaiveFindings;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.document.Sheet;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.core.base.Refusal;
import mintshelf.core.change.RequestRules;
import mintshelf.core.document.VersionName;
import mintshelf.core.drawing.check.Finding;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** The sheet of a version: filling the window, as a part of a page, with what the rules say of it. */
@Controller
public class SheetPages {
    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final ReadSheet sheets;
    private final CheckSheets checks;
    private final WaiveFindings waive;
    private final Around around;
    private final ReadRemarks remarks;

    public SheetPages(
            ReadDocument read,
            ReadVersion readVersion,
            ReadSheet sheets,
            CheckSheets checks,
            WaiveFindings waive,
            Around around,
            ReadRemarks remarks) {
        this.remarks = remarks;
        this.read = read;
        this.readVersion = readVersion;
        this.sheets = sheets;
        this.checks = checks;
        this.waive = waive;
        this.around = around;
    }

    private static final Refusal FORMER =
            Refusal.of("waiver.former", "This is a former version.", "Findings are let pass for the latest one.");

    /** The sheet of a version, as a part of a page that did not wait for it. */
    @GetMapping("/documents/{id}/versions/{number}/drawn")
    String drawn(Actor actor, @PathVariable long id, @PathVariable VersionName number, Model model) {
        VersionRow version = readVersion.version(actor, id, number);
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("isModel", ModelFormat.of(version).isPresent());
        around.fillMargin(actor, view.seen(), version, model);
        try {
            model.addAttribute("sheet", sheets.sheet(version.drawn().content()));
        } catch (Refused e) {
            model.addAttribute("sheet", sheets.sheetSoon(version.drawn().content()));
        }
        return "document/_drawn";
    }

    /** What the rules say of a version's sheet. */
    @GetMapping("/documents/{id}/versions/{number}/checks")
    String checks(Actor actor, @PathVariable long id, @PathVariable int number, Model model) {
        VersionRow version = readVersion.version(actor, id, number);
        ReadDocument.View view = read.view(actor, id);
        List<Held> findings = checks.findings(view.seen().document(), version).orElseThrow(NotThere::new);
        List<Finding> bare = findings.stream().map(Held::finding).toList();
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("findings", findings);
        model.addAttribute("says", CheckSheets.says(findings));
        model.addAttribute("keys", bare.stream().map(CheckSheets::key).toList());
        model.addAttribute(
                "inTheWay", findings.stream().filter(Held::isInTheWay).count());
        boolean latest = number == view.seen().document().head().number();
        model.addAttribute(
                "waiverRefusal",
                latest ? waive.refusal(actor, view.seen().document()).orElse(null) : FORMER);
        model.addAttribute(
                "mayAsk",
                RequestRules.line(view.seen().document(), actor.access()).isEmpty());
        model.addAttribute("isModel", ModelFormat.of(version).isPresent());
        model.addAttribute(
                "svg", sheets.marked(version.drawnNow().content(), bare).orElse(""));
        around.fillMargin(actor, view.seen(), version, model);
        return "document/checks";
    }

    /** What the picture of a large sheet lacks at first: a part a line, each a picture to be laid over it. */
    @GetMapping("/documents/{id}/versions/{number}/rest")
    void rest(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<String> layout,
            HttpServletResponse response)
            throws IOException {
        VersionRow version = readVersion.version(actor, id, number);
        response.setContentType("text/plain");
        response.setCharacterEncoding("UTF-8");
        Writer out = response.getWriter();
        try {
            sheets.rest(version.drawn().content(), layout.filter(l -> !l.isEmpty()), part -> {
                try {
                    out.append(part.replace('\n', ' ')).append('\n').flush();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        } catch (UncheckedIOException e) {
            // Whoever looked at it has gone on.
            throw e.getCause();
        }
    }

    /** The sheet of a version, filling the window; {@code look} begins at a finding of its checks. */
    @GetMapping("/documents/{id}/versions/{number}/sheet")
    String sheet(
            Actor actor,
            @PathVariable long id,
            @PathVariable VersionName number,
            @RequestParam Optional<Integer> look,
            @RequestParam Optional<String> layout,
            @RequestParam Optional<Long> remark,
            @RequestParam Optional<Long> round,
            @RequestParam Optional<String> at,
            Model model) {
        VersionRow version = readVersion.version(actor, id, number);
        Optional<String> wanted = layout.filter(l -> !l.isEmpty());
        Sheet sheet = sheets.layout(version.drawn().content(), wanted, "/documents/" + id + "/versions/" + number);
        if (!sheet.isWhole() && wanted.isEmpty()) throw new NotThere();
        ReadDocument.View view = read.view(actor, id);
        look.flatMap(n -> checks.findings(view.seen().document(), version)
                        .filter(found -> n > 0 && n <= found.size())
                        .map(found -> found.get(n - 1).finding().box()))
                .filter(box -> !box.isEmpty())
                .ifPresent(box -> model.addAttribute(
                        "look", box.minX() + " " + box.minY() + " " + box.maxX() + " " + box.maxY()));
        at.filter(box -> box.matches("\\d{1,5}( \\d{1,5}){3}")).ifPresent(box -> model.addAttribute("found", box));
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("sheet", sheet);
        // Remarks are of work in preparation: whoever sees only what is released is not told that there are any.
        // What is thought of a trial is said of the trial.
        boolean marks = sheet.isWhole() && !number.isTrial();
        model.addAttribute("remarks", view.seen().all() && marks);
        model.addAttribute(
                "mayMark", marks && MakeRemark.refusal(actor, view.seen()).isEmpty());
        model.addAttribute("tools", remarks.tools(version, sheet.layout()));
        model.addAttribute("wanted", remark.orElse(null));
        model.addAttribute("round", round.orElse(null));
        around.fillMargin(actor, view.seen(), version, model);
        return "document/sheet";
    }
}
