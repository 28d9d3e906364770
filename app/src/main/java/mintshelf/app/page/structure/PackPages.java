package mintshelf.app.page.structure;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Words;
import mintshelf.app.page.ZipAnswer;
import mintshelf.app.store.pack.PackStore.Pack;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.KeepPack.Kept;
import mintshelf.app.use.structure.PackStructure;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A structure, or a baseline, packed for somebody: what is in it, who gets it, the archive with its lists. */
@Controller
public class PackPages {
    private static final int SHOWN = 200;
    private static final int PACKS = 60;

    private final PackStructure structure;
    private final KeepPack packs;
    private final ZipAnswer zip;

    public PackPages(PackStructure structure, KeepPack packs, ZipAnswer zip) {
        this.structure = structure;
        this.packs = packs;
        this.zip = zip;
    }

    private static Asked asked(Map<String, String> form, LocalDate today) {
        StructureView view = StructureView.LATEST;
        for (StructureView one : StructureView.values())
            if (one.code().equals(form.getOrDefault("view", "")) && one != StructureView.ON_DATE) view = one;
        boolean first = !form.containsKey("layout");
        return new Asked(
                view,
                Optional.empty(),
                Pages.id(form, "baseline"),
                today,
                Layout.of(form.getOrDefault("layout", "")),
                first || form.containsKey("sheets"),
                form.containsKey("pages"),
                form.containsKey("neutral"));
    }

    @GetMapping("/documents/{id}/pack")
    String plan(
            Actor actor,
            @PathVariable long id,
            @RequestParam Map<String, String> form,
            @ModelAttribute("w") Words words,
            Model model) {
        Asked asked = asked(form, words.today());
        PackStructure.Plan plan = structure.plan(actor, id, asked);
        model.addAttribute("id", id);
        model.addAttribute("plan", plan);
        model.addAttribute("asked", asked);
        model.addAttribute(
                "views",
                List.of(
                        StructureView.AS_SAVED,
                        StructureView.LATEST,
                        StructureView.LATEST_RELEASED,
                        StructureView.AS_RELEASED));
        model.addAttribute("layouts", Layout.values());
        model.addAttribute("rows", plan.entries().stream().limit(SHOWN).toList());
        model.addAttribute("more", Math.max(0, plan.entries().size() - SHOWN));
        model.addAttribute("receiver", form.getOrDefault("receiver", ""));
        model.addAttribute("purpose", form.getOrDefault("purpose", ""));
        return "structure/pack";
    }

    @PostMapping("/documents/{id}/pack")
    String pack(
            Actor actor,
            @PathVariable long id,
            @RequestParam Map<String, String> form,
            @ModelAttribute("w") Words words,
            Model model) {
        try {
            return "redirect:/packs/"
                    + packs.keep(
                            actor,
                            id,
                            form.getOrDefault("actKey", ""),
                            asked(form, words.today()),
                            form.getOrDefault("receiver", ""),
                            form.getOrDefault("purpose", ""));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return plan(actor, id, form, words, model);
        }
    }

    /** The person's packs, the latest first. */
    @GetMapping("/packs")
    String list(Actor actor, @RequestParam(defaultValue = "9223372036854775807") long before, Model model) {
        List<Pack> mine = packs.mine(actor, before, PACKS + 1);
        List<Pack> shown = mine.size() > PACKS ? mine.subList(0, PACKS) : mine;
        model.addAttribute("packs", shown);
        model.addAttribute("next", mine.size() > PACKS ? shown.get(PACKS - 1).id() : null);
        return "structure/packs";
    }

    @GetMapping("/packs/{id}")
    String kept(Actor actor, @PathVariable long id, Model model) {
        Kept kept = packs.kept(actor, id);
        model.addAttribute("kept", kept);
        model.addAttribute("pack", kept.pack());
        model.addAttribute("rows", kept.entries().stream().limit(SHOWN).toList());
        model.addAttribute("more", Math.max(0, kept.entries().size() - SHOWN));
        return "structure/packed";
    }

    /** The archive: the files as they were packed, and the list of them in three forms. */
    @GetMapping("/packs/{id}/files.zip")
    void files(Actor actor, @PathVariable long id, HttpServletResponse response) throws IOException {
        Kept kept = packs.kept(actor, id);
        // What could not be made as it was meant is known, and told, once the files are in the archive.
        Map<String, String> left = new LinkedHashMap<>();
        Map<String, Supplier<byte[]>> lists = new LinkedHashMap<>();
        lists.put("list.csv", () -> TableFiles.csv(packs.table(kept, left)));
        lists.put("list.xlsx", () -> TableFiles.xlsx("Pack", packs.table(kept, left)));
        lists.put("list.pdf", () -> packs.list(kept, left));
        lists.put("contents.txt", () -> says(kept, left).getBytes(StandardCharsets.UTF_8));
        zip.send(kept.name() + ".zip", packs.files(kept, left), lists, response);
    }

    private static String says(Kept kept, Map<String, String> left) {
        StringBuilder says = new StringBuilder(kept.pack().shown())
                .append(", for ")
                .append(kept.pack().receiver())
                .append(": ")
                .append(kept.pack().purpose())
                .append('\n');
        kept.entries()
                .forEach(e -> says.append(e.path())
                        .append("  v")
                        .append(e.version().number())
                        .append('\n'));
        left.forEach((path, why) -> says.append("Not as it was meant: ")
                .append(path)
                .append(". ")
                .append(why)
                .append('\n'));
        kept.absent().forEach(a -> says.append(a).append('\n'));
        return says.toString();
    }
}
