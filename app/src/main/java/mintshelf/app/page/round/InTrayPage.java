package mintshelf.app.page.round;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.RemindRounds;
import mintshelf.app.use.trial.AskOpinions;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;

/** What others ask of me: signatures, jobs. */
@Controller
public class InTrayPage {
    private final ReadRounds rounds;
    private final RoundLook look;
    private final ReadJobs jobs;
    private final AskOpinions opinions;

    public InTrayPage(ReadRounds rounds, RoundLook look, ReadJobs jobs, AskOpinions opinions) {
        this.opinions = opinions;
        this.rounds = rounds;
        this.look = look;
        this.jobs = jobs;
    }

    @GetMapping("/in-tray")
    String inTray(Actor actor, Model model) {
        List<ReadRounds.Waiting> waiting = rounds.inTray(actor);
        model.addAttribute("waiting", waiting);
        model.addAttribute(
                "differences",
                look.differences(waiting.stream().map(ReadRounds.Waiting::view).toList()));
        model.addAttribute("trials", opinions.waiting(actor));
        model.addAttribute("sent", rounds.sent(actor));
        model.addAttribute("jobs", jobs.mine(actor));
        model.addAttribute("given", jobs.given(actor));
        model.addAttribute("keeps", RemindRounds.keeps(actor));
        return "round/in-tray";
    }
}
