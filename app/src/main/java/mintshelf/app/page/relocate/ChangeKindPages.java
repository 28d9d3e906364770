package mintshelf.app.page.relocate;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.page.PlanShown;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.relocate.ChangeKind;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.base.Plan;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Another kind for documents: the plan first. */
@Controller
public class ChangeKindPages {
    private final ChangeKind change;
    private final ActOverSet over;

    public ChangeKindPages(ChangeKind change, ActOverSet over) {
        this.change = change;
        this.over = over;
    }

    @GetMapping("/change-kind")
    String plan(
            Actor actor, @RequestParam(defaultValue = "") String items, @RequestParam Optional<Long> to, Model model) {
        List<Long> asked = Pages.many(items);
        if (asked.isEmpty()) throw new NotThere();
        model.addAttribute("items", items);
        model.addAttribute("asked", asked.size());
        model.addAttribute("to", to.orElse(null));
        model.addAttribute("kinds", change.kinds());
        if (to.isEmpty()) return "relocate/kind";
        Plan<SetAct.PlanLine> plan = over.plan(actor, Run.What.CHANGE_KIND, asked, Wish.into(to.get()));
        PlanShown.add(plan, model);
        return "relocate/kind";
    }

    @PostMapping("/change-kind")
    String change(Actor actor, @RequestParam String items, @RequestParam long to, @RequestParam String actKey) {
        List<Long> ids = Pages.many(items);
        if (ids.isEmpty()) throw new NotThere();
        return "redirect:/runs/"
                + over.begin(actor, Run.What.CHANGE_KIND, ids, Wish.into(to), Optional.empty(), actKey);
    }
}
