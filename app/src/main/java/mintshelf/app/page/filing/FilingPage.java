package mintshelf.app.page.filing;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.filing.FilingStore.Origin;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.filing.FilingSheets.FilingLine;
import mintshelf.app.use.filing.FilingSheets.Sheet;
import mintshelf.app.use.filing.SheetReferences;
import mintshelf.app.use.search.FindAlike;
import mintshelf.core.content.ContentKind;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The filing sheet and its report. */
@Controller
public class FilingPage {
    private final FileDocuments filing;
    /** Of a hundred: what is less like is not offered. */
    private static final int NEAR = 75;

    private final FilingSheets filingSheets;
    private final SheetReferences references;
    private final FindAlike alike;

    public FilingPage(FileDocuments filing, FilingSheets filingSheets, SheetReferences references, FindAlike alike) {
        this.references = references;
        this.alike = alike;
        this.filing = filing;
        this.filingSheets = filingSheets;
    }

    @PostMapping("/shelves/{shelf}/filings")
    String open(
            Actor actor,
            @PathVariable long shelf,
            @RequestParam Optional<Long> folder,
            @RequestParam List<String> uploads,
            @RequestParam MultiValueMap<String, String> form,
            @RequestParam(name = "derived") Optional<Long> derivedFrom) {
        OptionalLong to = folder.map(OptionalLong::of).orElse(OptionalLong.empty());
        // Folders may have commas in their names: they are taken as they were sent.
        List<String> paths = form.getOrDefault("paths", List.of());
        return "redirect:/filings/" + filingSheets.open(actor, shelf, to, uploads, paths, derivedFrom);
    }

    @GetMapping("/filings/{id}")
    String show(
            Actor actor,
            @PathVariable long id,
            @RequestParam(name = "page", defaultValue = "1") int page,
            Model model) {
        return page(actor, id, Map.of(), page, model);
    }

    private String page(Actor actor, long id, Map<Long, ?> problems, int page, Model model) {
        Sheet sheet = filingSheets.sheet(actor, id);
        model.addAttribute("page", Math.max(1, Math.min(page, sheet.pages())));
        model.addAttribute("sheet", sheet);
        model.addAttribute("firstLabels", sheet.firstLabels());
        model.addAttribute("problems", problems);
        if (sheet.filing().isDropped()) throw new NotThere();
        return sheet.filing().isOpen() ? "filing/page" : "filing/report";
    }

    @PostMapping("/filings/{id}")
    String file(
            Actor actor,
            @PathVariable long id,
            @RequestParam MultiValueMap<String, String> form,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "false") boolean hold,
            @RequestParam(name = "page", defaultValue = "1") int page,
            Model model) {
        Sheet sheet = filingSheets.sheet(actor, id);
        if (!sheet.filing().isOpen()) return "redirect:/filings/" + id;
        filingSheets.keep(actor, id, edits(sheet, form), text(form, "comment", ""));
        try {
            FileDocuments.Result result = filing.file(actor, id, actKey, hold);
            if (result.isFiled()) return "redirect:" + result.target();
            model.addAttribute("actKey", UUID.randomUUID().toString());
            return page(actor, id, result.problems(), page, model);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("actKey", UUID.randomUUID().toString());
            return page(actor, id, Map.of(), page, model);
        }
    }

    /** Keeps what was typed and turns to another page of the sheet. */
    @PostMapping("/filings/{id}/turn")
    String turn(
            Actor actor,
            @PathVariable long id,
            @RequestParam int to,
            @RequestParam MultiValueMap<String, String> form) {
        Sheet sheet = filingSheets.sheet(actor, id);
        if (!sheet.filing().isOpen()) return "redirect:/filings/" + id;
        filingSheets.keep(actor, id, edits(sheet, form), text(form, "comment", ""));
        return "redirect:/filings/" + id + "?page=" + to;
    }

    /** The sheet as it looks with what was typed: another kind asks for other facts. Nothing is filed. */
    @PostMapping("/filings/{id}/look")
    String look(
            Actor actor,
            @PathVariable long id,
            @RequestParam(name = "page", defaultValue = "1") int page,
            @RequestParam MultiValueMap<String, String> form,
            Model model) {
        Sheet sheet = filingSheets.sheet(actor, id);
        if (!sheet.filing().isOpen()) throw new NotThere();
        filingSheets.keep(actor, id, edits(sheet, form), text(form, "comment", ""));
        return page(actor, id, Map.of(), page, model);
    }

    /** What the file of a row refers to, and what it is nearly the same as; read when the sheet is looked at. */
    @GetMapping("/filings/{id}/rows/{row}")
    String row(Actor actor, @PathVariable long id, @PathVariable long row, Model model) {
        Map<Row, Upload> sheet = filingSheets.files(actor, id);
        Row one = sheet.keySet().stream().filter(r -> r.id() == row).findFirst().orElseThrow(NotThere::new);
        Upload file = sheet.get(one);
        if (file.state() != Upload.State.COMPLETE) throw new NotThere();
        model.addAttribute("row", one);
        model.addAttribute("refers", references.of(actor, sheet, one));
        StoredContent content = new StoredContent(
                file.content(),
                file.hash().orElseThrow(),
                file.size(),
                file.kind().orElse(ContentKind.OTHER));
        model.addAttribute("near", one.sameAs().isPresent() ? List.of() : alike.near(actor, content, NEAR, 1));
        return "filing/_row";
    }

    private static List<Row> edits(Sheet sheet, MultiValueMap<String, String> form) {
        List<Row> edits = new ArrayList<>();
        // What stands on another page says nothing here.
        Set<Long> here = form.getOrDefault("rows", List.of()).stream()
                .flatMap(r -> id(r).stream())
                .collect(Collectors.toSet());
        for (FilingLine line : sheet.lines()) {
            Row row = line.row();
            if (row.item().isPresent()) continue;
            if (!here.isEmpty() && !here.contains(row.beside().orElse(row.id()))) continue;
            String at = "row" + row.id() + ".";
            Map<String, String> facts = new TreeMap<>(row.facts());
            form.forEach((name, values) -> {
                if (name.startsWith(at + "fact.")) facts.put(name.substring((at + "fact.").length()), values.get(0));
            });
            edits.add(new Row(
                    row.id(),
                    row.upload(),
                    (row.beside().isPresent() || form.containsKey(at + "included")) && !form.containsKey(at + "uses"),
                    form.containsKey(at + "kind") ? id(form.getFirst(at + "kind")) : row.kind(),
                    "",
                    text(form, at + "number", row.number()),
                    "",
                    text(form, at + "title", row.title()),
                    "",
                    text(form, at + "revision", row.revision()),
                    "",
                    id(form.getFirst(at + "folder")).orElse(row.folder()),
                    facts,
                    row.sameAs(),
                    row.item(),
                    row.sameAs().isPresent() && form.containsKey(at + "uses"),
                    text(form, at + "words", row.words()).strip(),
                    id(form.getFirst(at + "folder")).isPresent() ? "" : row.path(),
                    form.containsKey(at + "apart") ? Optional.empty() : row.beside(),
                    new Origin("released".equals(form.getFirst(at + "stands")), id(form.getFirst(at + "from")))));
        }
        return edits;
    }

    private static String text(MultiValueMap<String, String> form, String name, String otherwise) {
        String value = form.getFirst(name);
        return value == null ? otherwise : value;
    }

    private static Optional<Long> id(String text) {
        return text != null && text.matches("\\d{1,18}") ? Optional.of(Long.valueOf(text)) : Optional.empty();
    }

    @PostMapping("/filings/{id}/drop")
    String drop(Actor actor, @PathVariable long id) {
        long shelf = filingSheets.sheet(actor, id).filing().shelf();
        filingSheets.drop(actor, id);
        return "redirect:/shelves/" + shelf;
    }
}
