package mintshelf.app.page.search;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.search.LookUp;
import mintshelf.app.use.search.Search;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Search results as a page, and a few of them while typing. */
@Controller
public class SearchPage {
    private static final int PAGE = 50;
    private static final int MOST = 5000;
    private final Search search;
    private final LookUp lookUp;

    public SearchPage(Search search, LookUp lookUp) {
        this.search = search;
        this.lookUp = lookUp;
    }

    @GetMapping("/search")
    String results(
            Actor actor,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "0") int from,
            Model model) {
        int start = Math.max(0, Math.min(from, MOST));
        List<Search.Hit> found = search.find(actor, q, start, PAGE + 1);
        model.addAttribute("q", q);
        model.addAttribute("notUnderstood", Search.notUnderstood(q));
        model.addAttribute("hits", found.size() > PAGE ? found.subList(0, PAGE) : found);
        model.addAttribute("from", start);
        model.addAttribute("next", found.size() > PAGE ? start + PAGE : null);
        return "search/page";
    }

    /** Whom a field could name. */
    @GetMapping("/look-up/people")
    @ResponseBody
    List<LookUp.Found> people(Actor actor, @RequestParam(defaultValue = "") String q) {
        return lookUp.people(actor, q);
    }

    /** What a field could name. */
    @GetMapping("/look-up/documents")
    @ResponseBody
    List<LookUp.Found> documents(Actor actor, @RequestParam(defaultValue = "") String q) {
        return lookUp.documents(actor, q);
    }

    @GetMapping("/search/hints")
    String hints(Actor actor, @RequestParam(defaultValue = "") String q, Model model) {
        model.addAttribute("q", q);
        model.addAttribute("notUnderstood", Search.notUnderstood(q));
        model.addAttribute("found", search.find(actor, q, 0, 8));
        return "search/_hints :: hints";
    }
}
