package mintshelf.app.page.structure;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.page.PlanShown;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.structure.WriteNames;
import mintshelf.core.base.Plan;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The names that files say of other files, and the act that writes those of now: the plan first. */
@Controller
public class NamesPages {
    private final WriteNames names;
    private final ActOverSet over;

    public NamesPages(WriteNames names, ActOverSet over) {
        this.names = names;
        this.over = over;
    }

    /**
     * @param of documents that are named by the files
     * @param in documents whose files are asked, beside those
     */
    @GetMapping("/names-in-files")
    String plan(
            Actor actor,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            Model model) {
        Collection<Long> files = files(actor, of, in);
        model.addAttribute("of", of);
        model.addAttribute("in", in);
        if (!files.isEmpty()) {
            Plan<SetAct.PlanLine> plan = over.plan(actor, Run.What.WRITE_NAMES, files, Wish.NONE);
            List<Plan.Row<SetAct.PlanLine>> rows = plan.rows().stream()
                    .filter(r -> r.stand() != Plan.Stand.STAYS)
                    .toList();
            model.addAttribute("rows", rows.stream().limit(PlanShown.SHOWN).toList());
            model.addAttribute("more", Math.max(0, rows.size() - PlanShown.SHOWN));
            model.addAttribute("opening", plan.going().size());
            model.addAttribute("staying", rows.size() - plan.going().size());
        }
        return "structure/names";
    }

    /** What cannot be written into stays as it is, as the plan said. */
    @PostMapping("/names-in-files")
    String write(
            Actor actor,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            @RequestParam String actKey) {
        Collection<Long> files = files(actor, of, in);
        // Sent again when all is written, there is nothing left.
        if (files.isEmpty()) return "redirect:/names-in-files?of=" + of + "&in=" + in;
        List<Long> going = over.plan(actor, Run.What.WRITE_NAMES, files, Wish.NONE).going().stream()
                .map(l -> l.seen().spine().id())
                .toList();
        Collection<Long> all = going.isEmpty() ? files : going;
        return "redirect:/runs/" + over.begin(actor, Run.What.WRITE_NAMES, all, Wish.NONE, Optional.empty(), actKey);
    }

    private Collection<Long> files(Actor actor, String of, String in) {
        List<Long> named = Pages.many(of);
        List<Long> files = Pages.many(in);
        if (named.isEmpty() && files.isEmpty()) throw new NotThere();
        return named.isEmpty() ? files : names.namingOtherwise(actor, named);
    }
}
