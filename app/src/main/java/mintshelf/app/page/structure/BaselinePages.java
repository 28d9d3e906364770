package mintshelf.app.page.structure;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.page.TableAnswer;
import mintshelf.app.page.Words;
import mintshelf.app.page.ZipAnswer;
import mintshelf.app.use.structure.FetchStructure;
import mintshelf.app.use.structure.KeepBaselines;
import mintshelf.app.use.structure.KeepBaselines.Kept;
import mintshelf.app.use.structure.KeepBaselines.Line;
import mintshelf.app.use.structure.KeepBaselines.Of;
import mintshelf.core.base.Numbers;
import mintshelf.core.document.Revision;
import mintshelf.core.structure.StructureView;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Baselines: kept, looked at, compared, fetched. */
@Controller
public class BaselinePages {
    private static final int LISTED = 50;
    private static final int PAGE = 200;

    private final KeepBaselines baselines;
    private final ZipAnswer zip;

    public BaselinePages(KeepBaselines baselines, ZipAnswer zip) {
        this.baselines = baselines;
        this.zip = zip;
    }

    @GetMapping("/baselines")
    String list(
            Actor actor, @RequestParam Optional<Long> of, @RequestParam(defaultValue = "0") long before, Model model) {
        model.addAttribute("page", baselines.list(actor, of, before, LISTED));
        model.addAttribute("of", of.orElse(null));
        return "structure/baselines";
    }

    private static Of of(Optional<Long> top, String view, LocalDate day, String items) {
        if (top.isEmpty()) return Of.documents(Pages.ids(items));
        StructureView asked = StructureView.of(view).orElseThrow(NotThere::new);
        return Of.structure(top.get(), asked, day);
    }

    @GetMapping("/baselines/new")
    String plan(
            Actor actor,
            @RequestParam Optional<Long> of,
            @RequestParam(defaultValue = "latest") String view,
            @RequestParam @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) Optional<LocalDate> on,
            @RequestParam(defaultValue = "") String items,
            @ModelAttribute("w") Words words,
            Model model) {
        LocalDate day = on.orElseGet(words::today);
        model.addAttribute("plan", baselines.plan(actor, of(of, view, day, items)));
        model.addAttribute("of", of.orElse(null));
        model.addAttribute("view", view);
        model.addAttribute("day", day);
        model.addAttribute("items", items);
        model.addAttribute("most", PAGE);
        return "structure/baseline-new";
    }

    @PostMapping("/baselines")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam Optional<Long> of,
            @RequestParam(defaultValue = "latest") String view,
            @RequestParam @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) Optional<LocalDate> on,
            @RequestParam(defaultValue = "") String items,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String note,
            @ModelAttribute("w") Words words) {
        LocalDate day = on.orElseGet(words::today);
        return "redirect:" + baselines.keep(actor, actKey, of(of, view, day, items), name, note);
    }

    @GetMapping("/baselines/{id}")
    String page(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "now") String with,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "") String only,
            Model model) {
        Kept kept = baselines.kept(actor, id, with.equals("none") ? "" : with);
        // An address may carry it empty: that is all of them.
        boolean differing = only.equals("differing");
        List<Line> shown = differing
                ? kept.lines().stream().filter(l -> !l.differs().isEmpty()).toList()
                : kept.lines();
        int first = Math.max(0, from);
        model.addAttribute("k", kept);
        model.addAttribute("lines", shown.stream().skip(first).limit(PAGE).toList());
        model.addAttribute("all", shown.size());
        model.addAttribute("from", first);
        model.addAttribute("pageSize", PAGE);
        model.addAttribute("only", differing);
        model.addAttribute("with", with);
        model.addAttribute(
                "others",
                baselines.list(actor, Optional.of(kept.baseline().lead()), 0, LISTED).baselines().stream()
                        .filter(b -> b.id() != id)
                        .toList());
        return "structure/baseline";
    }

    @GetMapping("/baselines/{id}/files.zip")
    void files(Actor actor, @PathVariable long id, HttpServletResponse response) throws IOException {
        FetchStructure.Bundle bundle = baselines.files(actor, id);
        zip.send(bundle.name(), bundle.files(), Optional.of(bundle.says()), response);
    }

    @GetMapping("/baselines/{id}/list.{format}")
    ResponseEntity<byte[]> table(Actor actor, @PathVariable long id, @PathVariable String format) {
        Kept kept = baselines.kept(actor, id, "");
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("number", "title", "revision", "version", "needed", "unit"));
        for (Line line : kept.lines())
            rows.add(List.of(
                    line.seen().document().number(),
                    line.seen().document().title(),
                    line.revision().map(Revision::shown).orElse(""),
                    String.valueOf(line.row().number()),
                    line.row().needed().map(Numbers::plain).orElse(""),
                    line.row().needed().isPresent() ? line.row().unit() : ""));
        return TableAnswer.of("baseline " + kept.baseline().id(), format, "baseline", rows);
    }
}
