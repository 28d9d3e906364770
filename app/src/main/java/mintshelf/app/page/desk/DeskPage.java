package mintshelf.app.page.desk;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.desk.DeskStore;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Tokens;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A person's desks, the companion that keeps them, and tokens for programs. */
@Controller
public class DeskPage {
    private final Desks desks;
    private final Tokens tokens;
    private final Settings settings;

    public DeskPage(Desks desks, Tokens tokens, Settings settings) {
        this.desks = desks;
        this.tokens = tokens;
        this.settings = settings;
    }

    /** The desk in this browser: its folder is known to the browser only. */
    @GetMapping("/desk")
    String show() {
        return "desk/page";
    }

    /** @param opens a desk whose companion was registered just now; one that the actor has not is not named */
    @GetMapping("/desk/programs")
    String programs(Actor actor, @RequestParam Optional<String> opens, Model model) {
        model.addAttribute(
                "opens",
                opens.flatMap(name -> desks.of(actor).stream()
                                .filter(d -> d.name().equals(name) && d.opens().isPresent())
                                .findFirst())
                        .map(DeskStore.Desk::name)
                        .orElse(null));
        return page(actor, model);
    }

    private String page(Actor actor, Model model) {
        model.addAttribute("desks", desks.of(actor));
        model.addAttribute("tokens", tokens.of(actor));
        model.addAttribute("origin", settings.origin());
        return "desk/programs";
    }

    /** Shows a code; a page that is loaded again shows none. */
    @PostMapping("/desk/code")
    String code(Actor actor, Model model) {
        model.addAttribute("code", tokens.code(actor));
        return page(actor, model);
    }

    @PostMapping("/desk/tokens")
    String make(
            Actor actor,
            @RequestParam String label,
            @RequestParam(defaultValue = "30") int days,
            @RequestParam(defaultValue = "false") boolean write,
            Model model) {
        model.addAttribute("token", tokens.make(actor, label, write, days));
        return page(actor, model);
    }

    @PostMapping("/desk/tokens/{id}/revoke")
    String revoke(Actor actor, @PathVariable long id) {
        tokens.revoke(actor, id);
        return "redirect:/desk/programs";
    }

    @PostMapping("/desk/{name}/remove")
    String remove(Actor actor, @PathVariable String name) {
        desks.remove(actor, name);
        return "redirect:/desk/programs";
    }
}
