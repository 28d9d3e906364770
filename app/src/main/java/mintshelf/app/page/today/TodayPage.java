package mintshelf.app.page.today;

import java.util.List;
import java.util.Locale;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.page.Rows;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.job.ReadJobs;
import mintshelf.app.use.pin.Pins;
import mintshelf.app.use.round.RemindRounds;
import mintshelf.app.use.search.KeptSearches;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.app.use.today.ReadOrder;
import mintshelf.app.use.today.ReadToday;
import mintshelf.app.use.verify.ReadRunning;
import mintshelf.core.base.Numbers;
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
    private final FilingSheets filingSheets;
    private final ReadOrder order;
    private final RemindRounds rounds;
    private final ReadRunning running;
    private final ReadJobs jobs;
    private final KeptSearches searches;
    private final Pins pins;
    private final TakeIns takeIns;

    public TodayPage(
            ReadToday today,
            FilingSheets filingSheets,
            ReadOrder order,
            RemindRounds rounds,
            ReadRunning running,
            ReadJobs jobs,
            KeptSearches searches,
            Pins pins,
            TakeIns takeIns) {
        this.pins = pins;
        this.takeIns = takeIns;
        this.today = today;
        this.filingSheets = filingSheets;
        this.order = order;
        this.rounds = rounds;
        this.running = running;
        this.jobs = jobs;
        this.searches = searches;
    }

    @GetMapping("/")
    String home() {
        return "redirect:/today";
    }

    @GetMapping("/today")
    String show(Actor actor, Model model, @RequestParam(required = false) String taken) {
        ReadToday.View view = today.today(actor);
        List<FilingSheets.Waiting> filings = filingSheets.waiting(actor);
        model.addAttribute("view", view);
        model.addAttribute("filings", filings);
        List<TakeIn> taking = takeIns.waiting(actor);
        model.addAttribute("takeIns", taking);
        List<ReadJobs.View> mine = jobs.mine(actor);
        model.addAttribute("jobs", mine);
        model.addAttribute("pins", pins.lines(actor));
        model.addAttribute("searches", searches.lines(actor));
        int waits = view.back().size()
                + view.asked().size()
                + view.toStart().size()
                + filings.size()
                + mine.size()
                + taking.size();
        model.addAttribute("quietDay", waits == 0);
        model.addAttribute("sentence", sentence(view, waits));
        model.addAttribute("keepsOrder", ReadOrder.keeps(actor));
        model.addAttribute("taken", taken != null);
        model.addAttribute("heldIds", Rows.joined(view.held()));
        return "today/page";
    }

    /** What is out of order, for who keeps order; the page asks for it by itself. */
    @GetMapping("/today/order")
    String order(Actor actor, Model model) {
        ReadOrder.Order out = order.order(actor);
        List<RemindRounds.OpenRound> late =
                rounds.open(actor).stream().filter(RemindRounds.OpenRound::late).toList();
        List<ReadRunning.Part> parts = HouseRules.keeps(actor)
                ? running.running(actor).parts().stream().filter(p -> !p.well()).toList()
                : List.of();
        model.addAttribute("order", out);
        model.addAttribute("late", late);
        model.addAttribute("parts", parts);
        model.addAttribute(
                "well",
                late.isEmpty()
                        && parts.isEmpty()
                        && out.held().isEmpty()
                        && out.strays().isEmpty());
        return "today/_order :: order";
    }

    private static final List<String> WORDS =
            List.of("Nothing", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten");

    /** The day in a sentence; nothing for who only reads. */
    private static String sentence(ReadToday.View view, int waits) {
        int held = view.held().size();
        if (waits == 0 && held == 0) return "";
        int back = view.back().size();
        String wait = waits == 0
                ? "Nothing waits for you"
                : (waits < WORDS.size() ? WORDS.get(waits) : "" + waits)
                        + (waits == 1 ? " thing waits for you" : " things wait for you");
        String came = back == 0
                ? ""
                : back == waits
                        ? (waits == 1 ? "; it came back" : "; they came back")
                        : ", " + small(back) + " of them came back";
        return wait + came + "." + (held == 0 ? "" : " You hold " + Numbers.count(held, "document", "documents") + ".");
    }

    private static String small(int n) {
        return n < WORDS.size() ? WORDS.get(n).toLowerCase(Locale.ROOT) : "" + n;
    }

    @PostMapping("/notices/{id}/put-away")
    String putAway(Actor actor, @PathVariable long id) {
        today.putAway(actor, id);
        return "redirect:/today";
    }
}
