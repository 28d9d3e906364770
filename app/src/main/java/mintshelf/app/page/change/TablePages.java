package mintshelf.app.page.change;

import mintshelf.app.ground.Actor;
import mintshelf.app.page.TableAnswer;
import mintshelf.app.use.change.LinesAsTable;
import mintshelf.core.base.Refusal;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Lines of papers as tables: out, and back by way of a plan. */
@Controller
public class TablePages {

    private final LinesAsTable tables;

    public TablePages(LinesAsTable tables) {
        this.tables = tables;
    }

    /** @param format csv or xlsx */
    @GetMapping("/changes/{id}/lines.{format}")
    ResponseEntity<byte[]> table(Actor actor, @PathVariable long id, @PathVariable String format) {
        LinesAsTable.Table table = tables.table(actor, id);
        return TableAnswer.of(table.number() + " lines", format, "Lines", table.rows());
    }

    @GetMapping("/changes/{id}/lines-table")
    String choose(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("number", tables.table(actor, id).number());
        model.addAttribute("id", id);
        return "change/table";
    }

    /**
     * Shows what a table does, or does it.
     *
     * @param table CSV as text, or a workbook as {@code base64:} and its bytes so
     * @param down whether an empty reason is the one above it
     * @param act {@code take} to do it; else the plan is shown
     */
    @PostMapping("/changes/{id}/lines-table")
    String take(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String table,
            @RequestParam(defaultValue = "false") boolean down,
            @RequestParam(defaultValue = "") String act,
            Model model) {
        byte[] file = TableAnswer.sent(table);
        if (act.equals("take")) return "redirect:" + tables.take(actor, id, actKey, file, down);
        LinesAsTable.Plan plan = tables.plan(actor, id, file, down);
        model.addAttribute("number", plan.paper().document().number());
        model.addAttribute("id", id);
        model.addAttribute("plan", plan);
        model.addAttribute("shown", plan.rows().stream().limit(SHOWN).toList());
        model.addAttribute(
                "refusals",
                plan.refusals().stream()
                        .map(Refusal::says)
                        .distinct()
                        .limit(SHOWN)
                        .toList());
        model.addAttribute("table", table);
        model.addAttribute("down", down);
        return "change/table";
    }

    /** Rows of a plan that its page shows; the rest is counted. */
    private static final int SHOWN = 200;
}
