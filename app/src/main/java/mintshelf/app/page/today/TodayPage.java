package mintshelf.app.page.today;

import mintshelf.app.use.Actor;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.today.ReadToday;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The start page. */
@Controller
public class TodayPage {
    private final ReadToday today;
    private final FileDocuments filing;

    public TodayPage(ReadToday today, FileDocuments filing) {
        this.today = today;
        this.filing = filing;
    }

    @GetMapping("/")
    String home() {
        return "redirect:/today";
    }

    @GetMapping("/today")
    String show(Actor actor, Model model, @RequestParam(required = false) String taken) {
        ReadToday.View view = today.today(actor);
        model.addAttribute("view", view);
        model.addAttribute("filings", filing.waiting(actor));
        model.addAttribute("taken", taken != null);
        model.addAttribute("heldIds", mintshelf.app.page.Rows.joined(view.held()));
        return "today/page";
    }

    @PostMapping("/notices/{id}/put-away")
    String putAway(Actor actor, @PathVariable long id) {
        today.putAway(actor, id);
        return "redirect:/today";
    }
}
