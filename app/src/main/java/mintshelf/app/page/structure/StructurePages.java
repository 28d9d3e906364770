package mintshelf.app.page.structure;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Words;
import mintshelf.app.page.ZipAnswer;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.structure.FetchStructure;
import mintshelf.app.use.structure.KeepLinks;
import mintshelf.app.use.structure.KeepReferences;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.structure.WriteNames;
import mintshelf.core.structure.StructureView;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Components, where used, refers to. */
@Controller
public class StructurePages {
    private static final int MOST_ASKED = 100;

    private final ReadStructure structure;
    private final ReadWhereUsed used;
    private final ReadBom bom;
    private final KeepReferences keep;
    private final KeepLinks keepLinks;
    private final WriteNames names;
    private final FetchStructure fetch;
    private final ZipAnswer zip;
    private final Settings settings;

    public StructurePages(
            ReadStructure structure,
            ReadWhereUsed used,
            ReadBom bom,
            KeepReferences keep,
            KeepLinks keepLinks,
            WriteNames names,
            FetchStructure fetch,
            ZipAnswer zip,
            Settings settings) {
        this.structure = structure;
        this.used = used;
        this.bom = bom;
        this.keep = keep;
        this.keepLinks = keepLinks;
        this.names = names;
        this.fetch = fetch;
        this.zip = zip;
        this.settings = settings;
    }

    private static StructureView view(Optional<String> code) {
        if (code.isEmpty()) return StructureView.AS_SAVED;
        return StructureView.of(code.get()).orElseThrow(NotThere::new);
    }

    private LocalDate day(Optional<LocalDate> on, Words words) {
        return on.orElseGet(() -> words.now().atZone(settings.zone()).toLocalDate());
    }

    @GetMapping("/documents/{id}/structure")
    String components(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<String> view,
            @RequestParam @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) Optional<LocalDate> on,
            @RequestParam Optional<Integer> version,
            @RequestParam(defaultValue = "") String only,
            @RequestParam Optional<Long> trial,
            @RequestParam(defaultValue = "") String by,
            @ModelAttribute("w") Words words,
            Model model) {
        LocalDate day = day(on, words);
        ReadStructure.Structure found = structure.tree(actor, id, view(view), version, day, trial);
        List<ReadStructure.Standing> standing = found.standing();
        boolean filtered = standing.stream().anyMatch(one -> one.only().equals(only));
        ReadStructure.Structure shown = filtered ? found.only(only) : found;
        model.addAttribute("s", shown);
        model.addAttribute("by", by.equals("item") ? "item" : null);
        model.addAttribute("beside", by.equals("item") ? structure.beside(actor, shown) : Map.of());
        model.addAttribute("standing", standing);
        model.addAttribute("only", filtered ? only : "");
        model.addAttribute("day", day);
        model.addAttribute("trials", structure.trials(actor, found));
        model.addAttribute("trial", trial.orElse(null));
        model.addAttribute(
                "shows",
                found.rows().isEmpty() ? used.of(actor, id, false).shows().orElse(null) : null);
        model.addAttribute("asked", version.orElse(null));
        model.addAttribute(
                "views",
                Arrays.stream(StructureView.values())
                        .filter(v -> found.top().all() || v.isReleasedOnly())
                        .toList());
        model.addAttribute(
                "takeUp",
                found.top().all()
                        && found.view() == StructureView.AS_SAVED
                        && version.isEmpty()
                        && trial.isEmpty()
                        && found.outOfDate() > 0);
        return "structure/page";
    }

    /** All files of a structure in the folders in which they refer to each other. */
    @GetMapping("/documents/{id}/structure.zip")
    void files(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<String> view,
            @RequestParam @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) Optional<LocalDate> on,
            @RequestParam Optional<Integer> version,
            @RequestParam Optional<Long> trial,
            @ModelAttribute("w") Words words,
            HttpServletResponse response)
            throws IOException {
        FetchStructure.Bundle bundle = fetch.bundle(actor, id, view(view), version, day(on, words), trial);
        zip.send(bundle.name(), bundle.files(), Optional.of(bundle.says()), response);
    }

    @GetMapping("/documents/{id}/where-used")
    String used(Actor actor, @PathVariable long id, @RequestParam(required = false) String ever, Model model) {
        ReadWhereUsed.Used found = used.of(actor, id, ever != null);
        model.addAttribute("u", found);
        List<ReadBom.Named> byHand = bom.namedIn(actor, id);
        model.addAttribute("byHand", byHand);
        model.addAttribute("ever", ever != null);
        model.addAttribute(
                "worth",
                found.above().isEmpty() && byHand.isEmpty()
                        ? null
                        : UsedWorth.of(bom.of(actor, id, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH))
                                .orElse(null));
        model.addAttribute("picture", Picture.of(found));
        // Of what stands in very many it is asked on its own page only.
        model.addAttribute(
                "otherwise",
                found.above().size() > MOST_ASKED
                        ? -1
                        : names.namingOtherwise(actor, List.of(id)).size());
        return "structure/used";
    }

    @GetMapping("/documents/{id}/refers-to")
    String refersTo(Actor actor, @PathVariable long id, Model model) {
        KeepReferences.RefersTo found = keep.of(actor, id);
        model.addAttribute("r", found);
        model.addAttribute("former", names.former(actor, id));
        model.addAttribute("mayLink", KeepLinks.mayLink(actor, found.of()));
        model.addAttribute("kinds", LinkStore.Kind.values());
        return "structure/refers";
    }

    @PostMapping("/documents/{id}/references/{seq}/pick")
    String pick(
            Actor actor,
            @PathVariable long id,
            @PathVariable int seq,
            @RequestParam String actKey,
            @RequestParam Optional<Long> item,
            @RequestParam(defaultValue = "") String number) {
        return "redirect:" + keep.pick(actor, id, actKey, seq, item, number);
    }

    @PostMapping("/documents/{id}/references/look-again")
    String lookAgain(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + keep.lookAgain(actor, id, actKey);
    }

    @PostMapping("/documents/{id}/links")
    String link(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam LinkStore.Kind kind,
            @RequestParam String number) {
        return "redirect:" + keepLinks.link(actor, id, actKey, kind, number);
    }

    @PostMapping("/links/{id}/remove")
    String unlink(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + keepLinks.unlink(actor, id, actKey);
    }
}
