package mintshelf.app.page;

import java.util.stream.Collectors;
import mintshelf.app.effect.run.SetAct;
import mintshelf.core.base.Plan;
import org.springframework.ui.Model;

/** A plan over a set of documents as its page shows it. */
public final class PlanShown {
    /** Rows that a page shows; the act takes them all. */
    public static final int SHOWN = 200;

    private PlanShown() {}

    /** Adds {@code rows}, how many {@code more} there are, the {@code sentence}, how many are {@code opening} and which are {@code going}. */
    public static void add(Plan<SetAct.PlanLine> plan, Model model) {
        model.addAttribute("rows", plan.rows().stream().limit(SHOWN).toList());
        model.addAttribute("more", Math.max(0, plan.rows().size() - SHOWN));
        model.addAttribute("sentence", plan.sentence());
        model.addAttribute("opening", plan.going().size());
        model.addAttribute(
                "going",
                plan.going().stream()
                        .map(l -> Long.toString(l.seen().spine().id()))
                        .collect(Collectors.joining(",")));
    }
}
