package mintshelf.app.page.change;

import java.util.EnumMap;
import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.core.change.Disposition;
import mintshelf.core.change.Disposition.Place;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What becomes of the old ones of an order: all lines with their totals, one line to be said. */
@Controller
public class DispositionPages {
    private static final int PAGE = 50;

    private final KeepDisposition dispositions;

    public DispositionPages(KeepDisposition dispositions) {
        this.dispositions = dispositions;
    }

    /**
     * @param item the document whose line is said; 0 for none
     * @param from the first line that is shown
     */
    @GetMapping("/orders/{id}/disposition")
    String page(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long item,
            @RequestParam(defaultValue = "0") int from,
            Model model) {
        KeepDisposition.View view = dispositions.view(actor, id);
        int first = Math.min(Math.max(from, 0), view.lines().size());
        int next = Math.min(first + PAGE, view.lines().size());
        model.addAttribute("view", view);
        model.addAttribute("rows", view.lines().subList(first, next));
        model.addAttribute("from", first);
        model.addAttribute("next", next < view.lines().size() ? next : null);
        model.addAttribute("places", Place.values());
        model.addAttribute("whats", Disposition.What.values());
        if (item != 0) {
            if (!view.edits()) throw new NotThere();
            model.addAttribute("line", view.line(item).orElseThrow(NotThere::new));
            model.addAttribute("after", view.after(item));
        }
        return "change/disposition";
    }

    /** Fields {@code quantity.PLACE}, {@code what.PLACE}, {@code cost.PLACE}, {@code currency.PLACE}, {@code note.PLACE}. */
    @PostMapping("/orders/{id}/disposition")
    String keep(
            Actor actor,
            @PathVariable long id,
            @RequestParam long item,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "0") long after,
            @RequestParam Map<String, String> form) {
        Map<Place, Disposition.Written> written = new EnumMap<>(Place.class);
        for (Place place : Place.values()) {
            written.put(
                    place,
                    new Disposition.Written(
                            form.getOrDefault("quantity." + place, ""),
                            form.getOrDefault("what." + place, ""),
                            form.getOrDefault("cost." + place, ""),
                            form.getOrDefault("currency." + place, ""),
                            form.getOrDefault("note." + place, "")));
        }
        String to = dispositions.keep(actor, id, item, actKey, written);
        return "redirect:" + (after == 0 ? to : to + "?item=" + after);
    }
}
