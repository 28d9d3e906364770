package mintshelf.app.page.house;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.house.MoveOver;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.base.Plan;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What a new edition of a route means for what is under way: the plan first, then a run; whatever is left finishes where it is. */
@Controller
public class MoveOverPage {
    /** Rows that the page shows; the act takes them all. */
    private static final int SHOWN = 200;

    private final MoveOver moveOver;
    private final ReadRules read;
    private final ActOverSet over;

    public MoveOverPage(MoveOver moveOver, ReadRules read, ActOverSet over) {
        this.moveOver = moveOver;
        this.read = read;
        this.over = over;
    }

    @GetMapping("/house/routes/{code}/move-over")
    String page(Actor actor, @PathVariable String code, Model model) {
        List<Long> items = moveOver.earlier(actor, code);
        Plan<SetAct.PlanLine> plan =
                items.isEmpty() ? new Plan<>(List.of()) : over.plan(actor, Run.What.MOVE_OVER, items, Wish.NONE);
        model.addAttribute(
                "route",
                ReadRules.route(read.editions(actor, Subject.ROUTE, code).get(0)));
        model.addAttribute("edition", read.editions(actor, Subject.ROUTE, code).get(0));
        model.addAttribute("rows", plan.rows().stream().limit(SHOWN).toList());
        model.addAttribute("more", Math.max(0, plan.rows().size() - SHOWN));
        model.addAttribute("sentence", plan.sentence());
        model.addAttribute("opening", plan.going().size());
        model.addAttribute(
                "items",
                String.join(
                        ",",
                        plan.going().stream()
                                .map(l -> Long.toString(l.seen().spine().id()))
                                .toList()));
        return "house/move-over";
    }

    @PostMapping("/house/routes/{code}/move-over")
    String carryOut(Actor actor, @PathVariable String code, @RequestParam String actKey, @RequestParam String items) {
        List<Long> ids = Pages.many(items);
        if (ids.isEmpty()) throw new NotThere();
        return "redirect:/runs/" + over.begin(actor, Run.What.MOVE_OVER, ids, Wish.NONE, Optional.empty(), actKey);
    }
}
