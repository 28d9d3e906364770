package mintshelf.app.page.part;

import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.use.part.BeginPart;
import mintshelf.app.use.part.BeginPart.Wish;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A new part without a file. */
@Controller
public class PartPages {
    private final BeginPart begin;
    private final IntoFolders into;

    public PartPages(BeginPart begin, IntoFolders into) {
        this.begin = begin;
        this.into = into;
    }

    /** What it will be, with what was typed so far. */
    @GetMapping("/parts/new")
    String page(Actor actor, @RequestParam Map<String, String> form, Model model) {
        model.addAttribute("view", begin.view(actor, wish(form)));
        model.addAttribute("targets", into.of(actor));
        model.addAttribute("number", form.getOrDefault("number", ""));
        model.addAttribute("named", form.getOrDefault("title", ""));
        return "part/new";
    }

    @PostMapping("/parts/new")
    String make(Actor actor, @RequestParam Map<String, String> form, Model model) {
        try {
            return "redirect:" + begin.make(actor, form.getOrDefault("actKey", ""), wish(form));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return page(actor, form, model);
        }
    }

    private static Wish wish(Map<String, String> form) {
        return new Wish(
                Pages.id(form, "folder"),
                Pages.id(form, "kind"),
                form.getOrDefault("number", "").strip(),
                form.getOrDefault("title", ""),
                Pages.facts(form));
    }
}
