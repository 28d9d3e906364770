package mintshelf.app.page.structure;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.structure.TakeUp;
import mintshelf.core.base.Plan;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Taking up newer components. */
@Controller
public class TakeUpPages {
    private final TakeUp takeUp;
    private final ActOverSet over;

    public TakeUpPages(TakeUp takeUp, ActOverSet over) {
        this.takeUp = takeUp;
        this.over = over;
    }

    @GetMapping("/take-up")
    String planTakeUp(
            Actor actor, @RequestParam String items, @RequestParam(required = false) String all, Model model) {
        List<Long> ids = Pages.ids(items);
        if (ids.isEmpty()) throw new NotThere();
        Wish wish = Wish.takeUp(all != null);
        Plan<SetAct.PlanLine> plan = over.plan(actor, Run.What.TAKE_UP, ids, wish);
        List<Seen> opening = plan.going().stream().map(SetAct.PlanLine::seen).toList();
        model.addAttribute(
                "rows",
                plan.rows().stream().filter(r -> r.stand() != Plan.Stand.STAYS).toList());
        model.addAttribute("above", all != null ? 0 : takeUp.above(actor, ids));
        model.addAttribute("items", items);
        model.addAttribute("all", all != null);
        model.addAttribute("opening", opening.size());
        model.addAttribute("openingIds", Rows.joined(opening));
        return "structure/take-up";
    }

    @PostMapping("/take-up")
    String take(Actor actor, @RequestParam String items, @RequestParam String actKey) {
        List<Long> ids = Pages.many(items);
        long run = over.begin(actor, Run.What.TAKE_UP, ids, Wish.NONE, Optional.empty(), actKey);
        return "redirect:" + (ids.size() == 1 ? "/documents/" + ids.get(0) + "/structure" : "/runs/" + run);
    }
}
