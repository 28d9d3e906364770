package mintshelf.app.page.house;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.search.FeedIndex;
import mintshelf.app.use.verify.ReadRunning;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** How the server runs: mail, outputs, runs, words, disk, backup, storage by shelf. */
@Controller
public class RunningPage {
    private final ReadRunning running;
    private final FeedIndex index;

    public RunningPage(ReadRunning running, FeedIndex index) {
        this.running = running;
        this.index = index;
    }

    @GetMapping("/house/running")
    String page(Actor actor, @RequestParam Optional<Integer> again, Model model) {
        model.addAttribute("running", running.running(actor));
        model.addAttribute("index", index.standing(actor));
        model.addAttribute("again", again.orElse(null));
        return "house/running";
    }

    /** Makes this node's search index anew; the old one serves meanwhile. */
    @PostMapping("/house/running/index")
    String index(Actor actor, @RequestParam String actKey) {
        index.rebuild(actor, actKey);
        return "redirect:/house/running#index";
    }

    @PostMapping("/house/running/again/{what}")
    String again(Actor actor, @PathVariable String what, @RequestParam String actKey) {
        return "redirect:" + running.again(actor, actKey, what);
    }
}
