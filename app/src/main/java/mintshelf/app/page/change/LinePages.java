package mintshelf.app.page.change;

import java.util.HashMap;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.change.LineFacts;
import mintshelf.app.use.change.NewOnOrder;
import mintshelf.app.use.change.ShowGoal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Lines of orders that need a page of their own: facts that change, documents that the order makes; what shows goals. */
@Controller
public class LinePages {
    private static final String FIELD = "fact.";

    private final LineFacts facts;
    private final NewOnOrder fresh;
    private final ShowGoal goals;

    public LinePages(LineFacts facts, NewOnOrder fresh, ShowGoal goals) {
        this.facts = facts;
        this.fresh = fresh;
        this.goals = goals;
    }

    @GetMapping("/orders/{id}/lines/{item}/facts")
    String facts(Actor actor, @PathVariable long id, @PathVariable long item, Model model) {
        LineFacts.View view = facts.view(actor, id, item);
        model.addAttribute("view", view);
        model.addAttribute(
                "open", view.rows().stream().filter(r -> r.closed().isEmpty()).toList());
        model.addAttribute(
                "closed",
                view.rows().stream().filter(r -> r.closed().isPresent()).toList());
        return "change/facts";
    }

    /** Fields {@code fact.NAME}: what a fact will be. */
    @PostMapping("/orders/{id}/lines/{item}/facts")
    String keepFacts(
            Actor actor,
            @PathVariable long id,
            @PathVariable long item,
            @RequestParam String actKey,
            @RequestParam Map<String, String> form) {
        Map<String, String> typed = new HashMap<>();
        form.forEach((name, value) -> {
            if (name.startsWith(FIELD)) typed.put(name.substring(FIELD.length()), value);
        });
        return "redirect:" + facts.keep(actor, id, item, actKey, typed);
    }

    @GetMapping("/orders/{id}/new-document")
    String newDocument(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "") String like, Model model) {
        NewOnOrder.View view = fresh.view(actor, id, like);
        model.addAttribute("view", view);
        model.addAttribute("like", like);
        return "change/new-document";
    }

    @PostMapping("/orders/{id}/new-document")
    String makeDocument(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String like,
            @RequestParam(defaultValue = "") String number,
            @RequestParam(defaultValue = "") String title,
            @RequestParam(defaultValue = "") String reason) {
        return "redirect:" + fresh.make(actor, id, actKey, like, number, title, reason);
    }

    @PostMapping("/orders/{id}/goals/{goal}")
    String showGoal(
            Actor actor,
            @PathVariable long id,
            @PathVariable long goal,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String typed,
            @RequestParam(defaultValue = "") String note) {
        return "redirect:" + goals.show(actor, id, actKey, goal, typed, note);
    }
}
