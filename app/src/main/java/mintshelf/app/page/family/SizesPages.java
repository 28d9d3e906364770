package mintshelf.app.page.family;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.family.SizeFamilies;
import mintshelf.core.family.SizeTable;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** Sizes of a family, picked by what is typed; sizes of all families that have a measured length. */
@Controller
public class SizesPages {
    private static final String MEASURE = "m.";

    private final SizeFamilies families;

    public SizesPages(SizeFamilies families) {
        this.families = families;
    }

    @GetMapping("/documents/{id}/sizes")
    String sizes(Actor actor, @PathVariable long id, @RequestParam Map<String, String> form, Model model) {
        Map<String, String> wanted = new TreeMap<>();
        form.forEach((name, value) -> {
            if (name.startsWith(MEASURE)) wanted.put(name.substring(MEASURE.length()), value);
        });
        model.addAttribute("view", families.view(actor, id, wanted));
        model.addAttribute("wanted", wanted);
        return "family/sizes";
    }

    /** @param at what was measured, in the unit of the sheet */
    @GetMapping("/sizes")
    String near(Actor actor, @RequestParam(defaultValue = "") String at, Model model) {
        Optional<Double> measured = SizeTable.value(at);
        model.addAttribute("at", at);
        model.addAttribute("measured", measured.orElse(null));
        measured.ifPresent(m -> model.addAttribute("found", families.near(actor, m)));
        return "family/near";
    }
}
