package mintshelf.app.page.house;

import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRates;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The currencies in which parts cost something, and what they are in that of the house. */
@Controller
public class CurrencyPages {
    private final KeepRates rates;

    public CurrencyPages(KeepRates rates) {
        this.rates = rates;
    }

    @GetMapping("/house/currencies")
    String all(Actor actor, Model model) {
        model.addAttribute("table", rates.table(actor));
        return "house/currencies";
    }

    @PostMapping("/house/currencies")
    String keep(Actor actor, @RequestParam String actKey, @RequestParam String code, @RequestParam String rate) {
        return "redirect:" + rates.keep(actor, actKey, code, rate);
    }

    @PostMapping("/house/currencies/drop")
    String drop(Actor actor, @RequestParam String actKey, @RequestParam String code) {
        return "redirect:" + rates.drop(actor, actKey, code);
    }
}
