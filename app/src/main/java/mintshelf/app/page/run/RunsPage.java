package mintshelf.app.page.run;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.run.ReadRuns;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the person's acts over sets did; each report has an address of its own. */
@Controller
public class RunsPage {
    private static final int PAGE = 60;

    private final ReadRuns runs;

    public RunsPage(ReadRuns runs) {
        this.runs = runs;
    }

    @GetMapping("/runs")
    String list(Actor actor, @RequestParam(defaultValue = "9223372036854775807") long before, Model model) {
        List<Run> mine = runs.mine(actor, before, PAGE + 1);
        List<Run> shown = mine.size() > PAGE ? mine.subList(0, PAGE) : mine;
        model.addAttribute("runs", shown);
        model.addAttribute("next", mine.size() > PAGE ? shown.get(PAGE - 1).id() : null);
        return "run/list";
    }
}
