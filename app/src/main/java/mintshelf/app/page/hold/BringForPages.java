package mintshelf.app.page.hold;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Pages;
import mintshelf.app.use.hold.BringFor;
import mintshelf.core.hold.AlongRules.Fate;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Documents that are brought for a parent which somebody holds. */
@Controller
public class BringForPages {
    private final BringFor bring;

    public BringForPages(BringFor bring) {
        this.bring = bring;
    }

    @GetMapping("/bring-for")
    String plan(
            Actor actor, @RequestParam String items, @RequestParam(name = "for") Optional<Long> parent, Model model) {
        model.addAttribute("plan", bring.plan(actor, Pages.ids(items), parent));
        model.addAttribute("items", items);
        return "hold/bring-for";
    }

    @PostMapping("/bring-for")
    String bring(
            Actor actor,
            @RequestParam(name = "for") long parent,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam MultiValueMap<String, String> form) {
        Map<Long, Fate> chosen = new LinkedHashMap<>();
        form.forEach((name, values) -> {
            if (!name.matches("row\\.\\d{1,18}")) return;
            BringFor.fate(values.get(0)).ifPresent(f -> chosen.put(Long.valueOf(name.substring(4)), f));
        });
        return "redirect:" + bring.bring(actor, parent, chosen, actKey, desk);
    }
}
