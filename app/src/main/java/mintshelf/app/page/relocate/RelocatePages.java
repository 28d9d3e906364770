package mintshelf.app.page.relocate;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.page.PlanShown;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.relocate.Folders;
import mintshelf.app.use.relocate.Relocate;
import mintshelf.app.use.relocate.Rename;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.structure.WriteNames;
import mintshelf.core.base.Plan;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Another place for documents, another name for one: the plan first. */
@Controller
public class RelocatePages {
    private final Relocate relocate;
    private final Rename rename;
    private final Folders folders;
    private final ActOverSet over;
    private final IntoFolders into;
    private final WriteNames names;

    public RelocatePages(
            Relocate relocate, Rename rename, Folders folders, ActOverSet over, IntoFolders into, WriteNames names) {
        this.names = names;
        this.into = into;
        this.relocate = relocate;
        this.rename = rename;
        this.folders = folders;
        this.over = over;
    }

    /** @param alone whether what belongs along stays where it is */
    @GetMapping("/relocate")
    String plan(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam Optional<Long> to,
            @RequestParam(defaultValue = "false") boolean alone,
            Model model) {
        List<Long> asked = Pages.many(items);
        if (asked.isEmpty()) throw new NotThere();
        List<Long> all = alone ? asked : List.copyOf(relocate.withTheirs(actor, asked));
        model.addAttribute("items", items);
        model.addAttribute("asked", asked.size());
        model.addAttribute("along", all.size() - asked.size());
        model.addAttribute("alone", alone);
        model.addAttribute("to", to.orElse(null));
        model.addAttribute("targets", into.of(actor));
        to.ifPresent(folder -> plan(actor, all, folder, model));
        return "relocate/page";
    }

    private void plan(Actor actor, List<Long> all, long folder, Model model) {
        Plan<SetAct.PlanLine> plan = over.plan(actor, Run.What.RELOCATE, all, Wish.into(folder));
        PlanShown.add(plan, model);
    }

    @PostMapping("/relocate")
    String move(Actor actor, @RequestParam String items, @RequestParam long to, @RequestParam String actKey) {
        List<Long> ids = Pages.many(items);
        if (ids.isEmpty()) throw new NotThere();
        return "redirect:/runs/" + over.begin(actor, Run.What.RELOCATE, ids, Wish.into(to), Optional.empty(), actKey);
    }

    @GetMapping("/documents/{id}/rename")
    String rename(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("view", rename.view(actor, id));
        List<Plan.Row<SetAct.PlanLine>> naming = names.naming(actor, id);
        model.addAttribute("naming", naming.stream().limit(PlanShown.SHOWN).toList());
        model.addAttribute("writable", naming.stream().filter(Plan.Row::goes).count());
        return "relocate/rename";
    }

    @PostMapping("/documents/{id}/rename")
    String rename(
            Actor actor,
            @PathVariable long id,
            @RequestParam String number,
            @RequestParam String file,
            @RequestParam(defaultValue = "") String why,
            @RequestParam(defaultValue = "false") boolean write,
            @RequestParam int expected,
            @RequestParam String actKey,
            Model model) {
        try {
            rename.rename(actor, id, actKey, expected, number, file, why);
            return "redirect:" + (write ? written(actor, id, actKey) : "/documents/" + id);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("number", number);
            model.addAttribute("file", file);
            model.addAttribute("why", why);
            return rename(actor, id, model);
        }
    }

    /** The name is given by now; what cannot be written goes on meaning the document by the former one. */
    private String written(Actor actor, long id, String actKey) {
        List<Long> files = names.writable(actor, List.of(id));
        if (files.isEmpty()) return "/documents/" + id;
        String key = Acts.following("names " + actKey);
        try {
            return "/runs/" + over.begin(actor, Run.What.WRITE_NAMES, files, Wish.NONE, Optional.empty(), key);
        } catch (Refused e) {
            return "/names-in-files?of=" + id;
        }
    }

    @PostMapping("/folders/{folder}/every-desk")
    String everyDesk(Actor actor, @PathVariable long folder, @RequestParam(defaultValue = "false") boolean comes) {
        return "redirect:/shelves/" + folders.everyDesk(actor, folder, comes) + "?folder=" + folder;
    }

    @PostMapping("/folders/{folder}/rename")
    String renameFolder(Actor actor, @PathVariable long folder, @RequestParam String name) {
        return "redirect:/shelves/" + folders.rename(actor, folder, name) + "?folder=" + folder;
    }
}
