package mintshelf.app.page.job;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.job.DoJob;
import mintshelf.app.use.job.GiveJob;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Jobs: giving one, those that wait for me and those that I gave, one of them. */
@Controller
public class JobPages {
    private final ReadJobs read;
    private final GiveJob give;
    private final DoJob jobs;
    private final CheckOut checkOut;

    public JobPages(ReadJobs read, GiveJob give, DoJob jobs, CheckOut checkOut) {
        this.read = read;
        this.give = give;
        this.jobs = jobs;
        this.checkOut = checkOut;
    }

    @GetMapping("/jobs")
    String list(Actor actor, Model model) {
        model.addAttribute("mine", read.mine(actor));
        model.addAttribute("given", read.given(actor));
        return "job/list";
    }

    /** @param paper the order that it is for */
    @GetMapping("/jobs/give")
    String givePage(Actor actor, @RequestParam String items, @RequestParam Optional<Long> paper, Model model) {
        model.addAttribute("giving", read.giving(actor, Pages.ids(items), paper));
        return "job/give";
    }

    /** @param to {@code PERSON:7} or {@code GROUP:3} */
    @PostMapping("/jobs")
    String give(
            Actor actor,
            @RequestParam(defaultValue = "") List<Long> item,
            @RequestParam String actKey,
            @RequestParam Optional<Long> paper,
            @RequestParam(defaultValue = "") String what,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(defaultValue = "") String due) {
        if (item.isEmpty()) throw Refused.because("job.documents", "It is about no document.", "Choose at least one.");
        if (!to.matches("(PERSON|GROUP):\\d{1,18}"))
            throw Refused.because("job.to", "It is given to nobody.", "Choose a person or a group.");
        int colon = to.indexOf(':');
        Asked whom = new Asked(Asked.Kind.valueOf(to.substring(0, colon)), to.substring(colon + 1));
        return "redirect:" + give.give(actor, actKey, item, paper, what, whom, day(due));
    }

    private static Optional<LocalDate> day(String typed) {
        try {
            return typed.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(typed.strip()));
        } catch (DateTimeException e) {
            throw Refused.because("job.due", "That is no day.", "Write it as 2026-11-24, or leave it empty.");
        }
    }

    @GetMapping("/jobs/{id}")
    String job(Actor actor, @PathVariable long id, Model model) {
        ReadJobs.View view = read.job(actor, id);
        model.addAttribute("v", view);
        model.addAttribute("people", view.changes() ? read.people() : null);
        return "job/page";
    }

    /** Begins it; with {@code out} its documents are checked out in the same go, or nothing is begun. */
    @PostMapping("/jobs/{id}/begin")
    String begin(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(required = false) String out) {
        if (out == null) return "redirect:" + jobs.begin(actor, id, actKey);
        ReadJobs.View view = read.job(actor, id);
        if (!view.takes()) throw new NotThere();
        List<Long> items =
                view.documents().stream().map(Seen::spine).map(s -> s.id()).toList();
        String to = checkOut.take(actor, items, actKey, "", "");
        // Under a key of its own, which is the same when the form is sent twice.
        jobs.begin(actor, id, Acts.following(actKey));
        return "redirect:" + to;
    }

    @PostMapping("/jobs/{id}/done")
    String done(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + jobs.done(actor, id, actKey);
    }

    @PostMapping("/jobs/{id}/drop")
    String drop(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String reason) {
        return "redirect:" + jobs.drop(actor, id, actKey, reason);
    }

    @PostMapping("/jobs/{id}/pass")
    String pass(Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam long person) {
        return "redirect:" + jobs.pass(actor, id, actKey, person);
    }
}
