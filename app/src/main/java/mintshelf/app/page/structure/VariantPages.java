package mintshelf.app.page.structure;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.app.use.structure.ReadFileVariants;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The variants that a document describes; what is said in the place of sums. */
@Controller
public class VariantPages {
    private static final int MORE_ROWS = 3;

    private final KeepVariants variants;
    private final ReadFileVariants files;

    public VariantPages(KeepVariants variants, ReadFileVariants files) {
        this.variants = variants;
        this.files = files;
    }

    @GetMapping("/documents/{id}/variants")
    String page(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "") String from, Model model) {
        KeepVariants.Read read = variants.read(actor, id);
        boolean open = read.refusal().isEmpty();
        boolean filled = open && from.equals("file");
        List<Variant> typed = filled ? files.with(read) : read.variants();
        model.addAttribute("v", read);
        model.addAttribute("typed", typed);
        model.addAttribute("filled", filled);
        model.addAttribute("brings", Variant.changes(read.variants(), typed));
        model.addAttribute("mayFill", open && files.mayHave(read));
        model.addAttribute("rows", Math.max(typed.size(), Math.min(Variant.MOST, typed.size() + MORE_ROWS)));
        return "structure/variants";
    }

    /** The table as it was typed: name.0, number.0, fact.0.mass and so on; a row that is emptied is gone. */
    @PostMapping("/documents/{id}/variants")
    String keep(
            Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam Map<String, String> form) {
        List<Variant> typed = new ArrayList<>();
        // As many as a table can have that was filled in from a file: what is too much is refused, not forgotten.
        for (int i = 0; i <= 2 * Variant.MOST + MORE_ROWS; i++) {
            String row = "fact." + i + ".";
            Map<String, String> facts = new LinkedHashMap<>();
            form.forEach((name, value) -> {
                if (name.startsWith(row)) facts.put(name.substring(row.length()), value);
            });
            typed.add(new Variant(form.getOrDefault("name." + i, ""), form.getOrDefault("number." + i, ""), facts));
        }
        return "redirect:" + variants.keep(actor, id, actKey, typed);
    }

    @PostMapping("/documents/{id}/bom/instead")
    String say(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String what,
            @RequestParam(defaultValue = "") String value,
            @RequestParam(defaultValue = "") String why) {
        for (RollUp.Of of : RollUp.Of.values())
            if (of.word().equals(what.toLowerCase(Locale.ROOT)))
                return "redirect:" + variants.say(actor, id, actKey, of, value, why);
        throw new NotThere();
    }
}
