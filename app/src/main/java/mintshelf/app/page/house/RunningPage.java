package mintshelf.app.page.house;

import java.util.Optional;
import mintshelf.app.ground.Actor;
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

    public RunningPage(ReadRunning running) {
        this.running = running;
    }

    @GetMapping("/house/running")
    String page(Actor actor, @RequestParam Optional<Integer> again, Model model) {
        model.addAttribute("running", running.running(actor));
        model.addAttribute("again", again.orElse(null));
        return "house/running";
    }

    @PostMapping("/house/running/again/{what}")
    String again(Actor actor, @PathVariable String what, @RequestParam String actKey) {
        return "redirect:" + running.again(actor, actKey, what);
    }
}
