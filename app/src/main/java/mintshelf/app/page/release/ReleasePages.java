package mintshelf.app.page.release;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Pages;
import mintshelf.app.store.release.WishStore;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.release.ReleasePlan.Line;
import mintshelf.app.use.release.ReleasePlan.Verdict;
import mintshelf.app.use.release.ReleaseTogether;
import mintshelf.app.use.release.ReleaseWhenOpen;
import mintshelf.core.release.Blocks.Block;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Why can this not be released? What goes together, what is in the way, and one button for each remedy. */
@Controller
public class ReleasePages {
    /** Lines of the list that a page shows; the sentence tells of all. */
    private static final int LISTED = 200;

    private final ReadReleasePlan read;
    private final ReleaseTogether together;
    private final ReleaseWhenOpen later;

    public ReleasePages(ReadReleasePlan read, ReleaseTogether together, ReleaseWhenOpen later) {
        this.later = later;
        this.read = read;
        this.together = together;
    }

    @GetMapping("/release-plan")
    String plan(
            Actor actor,
            @RequestParam String items,
            @RequestParam Optional<Integer> asked,
            @RequestParam Optional<Integer> released,
            @RequestParam(required = false) String moved,
            @RequestParam(name = "waits", required = false) String waits,
            @RequestParam(name = "taken-back", required = false) String back,
            Model model) {
        ReleasePlan plan = read.plan(actor, Pages.ids(items));
        model.addAttribute("plan", plan);
        model.addAttribute(
                "items",
                Help.joined(plan.asked().stream().map(s -> s.spine().id()).toList()));
        model.addAttribute("picture", PlanPicture.of(plan).orElse(null));
        List<Help> helps = new ArrayList<>();
        for (Block block : plan.blocks()) helps.add(Help.of(block, plan, actor.person()));
        model.addAttribute("helps", helps);
        Map<Long, Line> lines = new HashMap<>();
        plan.lines().forEach(l -> lines.put(l.item(), l));
        model.addAttribute("lineOf", lines);
        model.addAttribute("goes", plan.of(Verdict.GOES));
        model.addAttribute("sends", plan.of(Verdict.SEND));
        model.addAttribute("sendItems", named(plan.of(Verdict.SEND)));
        model.addAttribute("most", Pages.MOST);
        model.addAttribute("firstItems", named(plan.first()));
        model.addAttribute("listed", plan.lines().stream().limit(LISTED).toList());
        model.addAttribute("asked", asked.orElse(null));
        model.addAttribute("released", released.orElse(null));
        model.addAttribute("moved", moved != null);
        model.addAttribute("waits", waits != null);
        model.addAttribute("back", back != null);
        model.addAttribute("notLater", ReleaseWhenOpen.not(plan).orElse(""));
        model.addAttribute(
                "wishes",
                later.waiting(plan).stream()
                        .map(w -> new Later(w, ReleaseWhenOpen.mayTakeBack(actor, w, plan)))
                        .toList());
        return "release/plan";
    }

    /** A release that waits, and whether who looks may take it back. */
    public record Later(WishStore.Wish wish, boolean mine) {}

    /** Lets it be released by itself when nothing is in the way. */
    @PostMapping("/release-plan/when-open")
    String whenOpen(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String items,
            @RequestParam String seen,
            @RequestParam(defaultValue = "") String remark) {
        List<Long> asked = Pages.ids(items);
        boolean waits = later.ask(actor, asked, actKey, seen, remark);
        return "redirect:/release-plan?items=" + Help.joined(asked) + (waits ? "&waits" : "&moved");
    }

    @PostMapping("/release-plan/when-open/{wish}/take-back")
    String takeBack(Actor actor, @PathVariable long wish, @RequestParam String actKey) {
        return "redirect:/release-plan?items=" + Help.joined(later.takeBack(actor, wish, actKey)) + "&taken-back";
    }

    /** As many as an address names, in the order of the plan: what comes first needs nothing of what is cut off. */
    private static String named(List<Line> lines) {
        return Help.joined(lines.stream().limit(Pages.MOST).map(Line::item).toList());
    }

    @PostMapping("/release-plan")
    String release(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String items,
            @RequestParam String seen,
            @RequestParam(defaultValue = "") String remark) {
        List<Long> asked = Pages.ids(items);
        Optional<Integer> released = together.release(actor, asked, actKey, seen, remark);
        return "redirect:/release-plan?items=" + Help.joined(asked)
                + released.map(n -> "&released=" + n).orElse("&moved");
    }

    /** Asks whoever holds some of it. */
    @PostMapping("/release-plan/ask")
    String ask(Actor actor, @RequestParam String actKey, @RequestParam String items, @RequestParam String held) {
        List<Long> asked = Pages.ids(items);
        int told = together.ask(actor, asked, Pages.ids(held), actKey);
        return "redirect:/release-plan?items=" + Help.joined(asked) + "&asked=" + told;
    }
}
