package mintshelf.app.page.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Rows;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.release.ReleaseWhenOpen;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.app.use.structure.WriteNames;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the person's acts over sets did or are at; each report has an address of its own. */
@Controller
public class RunsPage {
    private final ReadRuns runs;
    private final ActOverSet over;
    private final ReadHeld held;
    private final CameBack cameBack;
    private final Habits habits;
    private final ReleaseWhenOpen later;
    private final WriteNames names;

    public RunsPage(
            ReadRuns runs,
            ActOverSet over,
            ReadHeld held,
            CameBack cameBack,
            Habits habits,
            ReleaseWhenOpen later,
            WriteNames names) {
        this.names = names;
        this.later = later;
        this.runs = runs;
        this.over = over;
        this.held = held;
        this.cameBack = cameBack;
        this.habits = habits;
    }

    private static final int PAGE = 60;
    private static final int ROWS = 200;

    @GetMapping("/runs")
    String list(Actor actor, @RequestParam(defaultValue = "9223372036854775807") long before, Model model) {
        List<Run> mine = runs.mine(actor, before, PAGE + 1);
        List<Run> shown = mine.size() > PAGE ? mine.subList(0, PAGE) : mine;
        model.addAttribute("runs", shown);
        model.addAttribute("waiting", later.mine(actor));
        model.addAttribute("next", mine.size() > PAGE ? shown.get(PAGE - 1).id() : null);
        return "run/list";
    }

    /** What an act over a set is at or did. The address stays: what is gone since is counted. */
    @GetMapping("/runs/{id}")
    String run(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "0") int from, Model model) {
        Run run = runs.run(actor, id);
        model.addAttribute("run", run);
        return switch (run.what()) {
            case CHECK_OUT -> taken(actor, runs.rows(run, 0, ActOverSet.MOST), model);
            case CHECK_IN -> cameBack.done(actor, runs.rows(run, 0, ActOverSet.MOST), model);
            default -> portions(actor, run, Math.max(0, from), model);
        };
    }

    private String portions(Actor actor, Run run, int from, Model model) {
        List<Run.Row> rows = runs.rows(run, from, ROWS);
        model.addAttribute("rows", rows);
        model.addAttribute("seen", runs.seen(actor, rows));
        model.addAttribute("from", from);
        model.addAttribute("next", from + rows.size());
        model.addAttribute("mine", run.person() == actor.person());
        // The topmost one shows what became of those below it.
        boolean structure = run.what() == Run.What.TAKE_UP && !rows.isEmpty();
        if (run.what() == Run.What.RELOCATE && !run.isWorking()) {
            List<Long> moved = ids(rows, "relocated");
            model.addAttribute("moved", moved.stream().map(String::valueOf).collect(Collectors.joining(",")));
            model.addAttribute("otherwise", names.namingOtherwise(actor, moved).size());
        }
        if (run.what() == Run.What.NEW_DESIGN && !rows.isEmpty()) {
            Map<Long, Seen> made = runs.made(actor, rows);
            model.addAttribute("made", made);
            // What stands in others was made before them.
            model.addAttribute(
                    "design",
                    next(run, rows, from)
                            ? null
                            : made.get(rows.get(rows.size() - 1).number()));
        }
        model.addAttribute("top", structure ? rows.get(rows.size() - 1).item() : null);
        return "run/page";
    }

    private static boolean next(Run run, List<Run.Row> rows, int from) {
        return from + rows.size() < run.total();
    }

    @PostMapping("/runs/{id}/rest")
    String rest(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:/runs/" + over.rest(actor, id, actKey);
    }

    private String taken(Actor actor, List<Run.Row> rows, Model model) {
        List<Seen> mine = held.still(actor, ids(rows, "held"));
        List<Seen> along = held.still(actor, ids(rows, "copy"));
        List<Seen> all = new ArrayList<>(mine);
        all.addAll(along);
        model.addAttribute("held", mine);
        List<Seen> now = mine.stream()
                .filter(s -> s.document()
                        .holder()
                        .filter(h -> h.person() == actor.person())
                        .isPresent())
                .toList();
        model.addAttribute("heldNow", now.size());
        model.addAttribute("copies", along);
        model.addAttribute("all", Rows.joined(all));
        model.addAttribute("heldIds", Rows.joined(now));
        model.addAttribute("gone", rows.size() - all.size());
        model.addAttribute("couldBeQuiet", habits.couldBeQuiet(actor, "check-out"));
        return "hold/taken";
    }

    private static List<Long> ids(List<Run.Row> rows, String became) {
        return rows.stream()
                .filter(r -> r.became().equals(became))
                .map(Run.Row::item)
                .toList();
    }
}
