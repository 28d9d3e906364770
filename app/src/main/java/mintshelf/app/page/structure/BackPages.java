package mintshelf.app.page.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.ReadBack;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What comes back of a pack: seen first, then taken. */
@Controller
public class BackPages {
    private final KeepPack packs;
    private final ReadBack read;
    private final CheckIn checkIn;
    private final FilingSheets filing;
    private final ReadRuns runs;

    public BackPages(KeepPack packs, ReadBack read, CheckIn checkIn, FilingSheets filing, ReadRuns runs) {
        this.packs = packs;
        this.read = read;
        this.checkIn = checkIn;
        this.filing = filing;
        this.runs = runs;
    }

    @GetMapping("/packs/{id}/back")
    String ask(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("kept", packs.kept(actor, id));
        return "structure/back";
    }

    /** An archive as one {@code upload}; of a folder each file as a {@code path} with its {@code upload}. */
    @PostMapping("/packs/{id}/back")
    String see(Actor actor, @PathVariable long id, @RequestParam MultiValueMap<String, String> form, Model model) {
        List<String> paths = form.getOrDefault("path", List.of());
        List<String> uploads = form.getOrDefault("upload", List.of());
        try {
            model.addAttribute(
                    "back",
                    paths.isEmpty()
                            ? read.read(actor, id, uploads.isEmpty() ? "" : uploads.get(0))
                            : read.read(actor, id, paths, uploads));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
        }
        return ask(actor, id, model);
    }

    /** Fields {@code upload.DOCUMENT} and {@code hold.DOCUMENT} of what was chosen by {@code item}, tokens of new files by {@code fresh}. */
    @PostMapping("/packs/{id}/take-back")
    String take(
            Actor actor,
            @PathVariable long id,
            @RequestParam(required = false) List<Long> item,
            @RequestParam(required = false) List<String> fresh,
            @RequestParam(defaultValue = "") String comment,
            @RequestParam String actKey,
            @RequestParam MultiValueMap<String, String> form) {
        Seen top = read.top(actor, id);
        List<CheckIn.Row> rows = new ArrayList<>();
        for (long one : item == null ? List.<Long>of() : item) {
            String hold = Optional.ofNullable(form.getFirst("hold." + one)).orElse("");
            rows.add(new CheckIn.Row(
                    one,
                    Optional.ofNullable(form.getFirst("upload." + one)),
                    hold.matches("\\d{1,18}") ? Long.parseLong(hold) : 0,
                    ""));
        }
        List<String> tokens = fresh == null ? List.of() : fresh;
        if (rows.isEmpty() && tokens.isEmpty())
            throw Refused.because("pack.nothing", "Nothing is chosen.", "Choose what is taken; nothing was changed.");
        if (!rows.isEmpty()) checkIn.take(actor, rows, actKey, comment, false);
        if (tokens.isEmpty()) return "redirect:" + runs.address(actor, actKey);
        // What came for documents is there already; sent again, it is not taken twice.
        return "redirect:/filings/"
                + filing.open(
                        actor,
                        top.document().place().shelf(),
                        OptionalLong.of(top.spine().folder()),
                        tokens,
                        Optional.empty());
    }
}
