package mintshelf.app.page.today;

import java.util.List;
import java.util.Locale;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Rows;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.today.ReadToday;
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

    public TodayPage(ReadToday today, FilingSheets filingSheets) {
        this.today = today;
        this.filingSheets = filingSheets;
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
        int waits = view.back().size() + view.asked().size() + view.toStart().size() + filings.size();
        model.addAttribute("quietDay", waits == 0);
        model.addAttribute("sentence", sentence(view, waits));
        model.addAttribute("taken", taken != null);
        model.addAttribute("heldIds", Rows.joined(view.held()));
        return "today/page";
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
