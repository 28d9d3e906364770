package mintshelf.app.page.house;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.house.FillFacts;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.base.Plan;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What a fact that became required means for what is under way: which documents lack it, and one value for those that are chosen. */
@Controller
public class FillPage {
    /** Rows on the page: those after them come when these are filled. */
    private static final int SHOWN = 200;

    private final FillFacts fill;
    private final ReadRules read;
    private final ActOverSet over;

    public FillPage(FillFacts fill, ReadRules read, ActOverSet over) {
        this.fill = fill;
        this.read = read;
        this.over = over;
    }

    @GetMapping("/house/kinds/{code}/fill/{fact}")
    String page(Actor actor, @PathVariable String code, @PathVariable String fact, Model model) {
        KindRule kind =
                (KindRule) read.editions(actor, Subject.KIND, code).get(0).rule();
        FactRule rule =
                (FactRule) read.editions(actor, Subject.FACT, fact).get(0).rule();
        KindRule.OnSheet on = kind.facts().stream()
                .filter(f -> f.fact().equals(fact))
                .findFirst()
                .orElseThrow(NotThere::new);
        List<Long> lacking = fill.lacking(actor, code, fact);
        List<Long> shown = lacking.stream().limit(SHOWN).toList();
        Plan<SetAct.PlanLine> plan =
                shown.isEmpty() ? new Plan<>(List.of()) : over.plan(actor, Run.What.FILL, shown, Wish.fill(fact, ""));
        model.addAttribute("kind", kind);
        model.addAttribute("fact", rule);
        model.addAttribute("required", on.required());
        model.addAttribute("rows", plan.rows());
        model.addAttribute("more", lacking.size() - shown.size());
        model.addAttribute("opening", plan.going().size());
        boolean dayOfFiling =
                rule.type() == FactType.DATE && rule.use().preset().equals(FactUse.TODAY);
        boolean whoFiles = rule.type() == FactType.PERSON;
        model.addAttribute("preset", dayOfFiling || whoFiles ? "" : rule.use().preset());
        return "house/fill";
    }

    @PostMapping("/house/kinds/{code}/fill/{fact}")
    String fill(
            Actor actor,
            @PathVariable String code,
            @PathVariable String fact,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String value,
            @RequestParam(name = "item", required = false) List<Long> items) {
        fill.lacking(actor, code);
        if (items == null || value.isBlank()) return "redirect:/house/kinds/" + code + "/fill/" + fact;
        long run = over.begin(actor, Run.What.FILL, items, Wish.fill(fact, value.strip()), Optional.empty(), actKey);
        return "redirect:/runs/" + run;
    }
}
