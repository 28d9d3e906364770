package mintshelf.app.page.begin;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.begin.BeginDocument;
import mintshelf.app.use.begin.BeginDocument.Wish;
import mintshelf.app.use.part.BeginPart;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A new document: from which template or document, then as what. */
@Controller
public class BeginPages {
    private static final int SHOWN = 40;

    private final BeginDocument begin;
    private final IntoFolders into;
    private final Numbered numbered;
    private final BeginPart parts;

    public BeginPages(BeginDocument begin, IntoFolders into, Numbered numbered, BeginPart parts) {
        this.begin = begin;
        this.into = into;
        this.numbered = numbered;
        this.parts = parts;
    }

    /** @param like number of the document that it begins as a copy of; without one what there is to choose from */
    @GetMapping("/new")
    String choose(
            Actor actor,
            @RequestParam Optional<Long> folder,
            @RequestParam(defaultValue = "") String like,
            @RequestParam(defaultValue = "0") int page,
            Model model) {
        List<Seen> templates = begin.templates(actor, Math.max(0, page) * SHOWN, SHOWN + 1);
        if (!like.isBlank()) {
            try {
                return "redirect:/documents/"
                        + numbered.named(actor, like.strip()).spine().id() + "/new"
                        + folder.map(f -> "?folder=" + f).orElse("");
            } catch (Refused e) {
                model.addAttribute("refusal", e.refusal());
            }
        }
        model.addAttribute("templates", templates.stream().limit(SHOWN).toList());
        model.addAttribute("next", templates.size() > SHOWN ? page + 1 : null);
        model.addAttribute("folder", folder.orElse(null));
        model.addAttribute("like", like);
        model.addAttribute("parts", parts.offers(actor));
        return "begin/choose";
    }

    /** What it will be, with what was typed so far. */
    @GetMapping("/documents/{id}/new")
    String page(Actor actor, @PathVariable long id, @RequestParam Map<String, String> form, Model model) {
        BeginDocument.View view = begin.view(actor, id, wish(form));
        model.addAttribute("view", view);
        model.addAttribute("targets", into.of(actor));
        model.addAttribute("number", form.getOrDefault("number", ""));
        model.addAttribute(
                "named",
                form.getOrDefault(
                        "title", view.template() ? "" : view.from().document().title()));
        model.addAttribute("hold", !form.containsKey("kind") || form.containsKey("hold"));
        return "begin/page";
    }

    @PostMapping("/documents/{id}/new")
    String make(Actor actor, @PathVariable long id, @RequestParam Map<String, String> form, Model model) {
        try {
            return "redirect:" + begin.make(actor, id, form.getOrDefault("actKey", ""), wish(form));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return page(actor, id, form, model);
        }
    }

    private static Wish wish(Map<String, String> form) {
        return new Wish(
                Pages.id(form, "folder"),
                Pages.id(form, "kind"),
                form.getOrDefault("number", "").strip(),
                form.getOrDefault("title", ""),
                Pages.facts(form),
                form.containsKey("hold"));
    }
}
