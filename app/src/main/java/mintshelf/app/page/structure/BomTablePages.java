package mintshelf.app.page.structure;

import mintshelf.app.ground.Actor;
import mintshelf.app.page.TableAnswer;
import mintshelf.app.use.structure.BringBomLines;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Lines of a bill of materials from a table: what it would do, then that. */
@Controller
public class BomTablePages {
    private final BringBomLines tables;

    public BomTablePages(BringBomLines tables) {
        this.tables = tables;
    }

    @GetMapping("/documents/{id}/bom/table")
    String choose(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("top", tables.top(actor, id));
        return "structure/bom-table";
    }

    /**
     * @param table CSV as text, or a workbook as {@code base64:} and its bytes so
     * @param act {@code take} to do it; else the plan is shown
     */
    @PostMapping("/documents/{id}/bom/table")
    String take(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String table,
            @RequestParam(defaultValue = "") String act,
            Model model) {
        byte[] file = TableAnswer.sent(table);
        if (act.equals("take")) return "redirect:" + tables.take(actor, id, actKey, file);
        BringBomLines.Plan plan = tables.plan(actor, id, file);
        model.addAttribute("top", plan.top());
        model.addAttribute("plan", plan);
        model.addAttribute("table", table);
        return "structure/bom-table";
    }
}
