package mintshelf.app.page.round;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.PasswordAgain;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.signoff.Decision;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Many rounds walked through sheet by sheet, and those that were chosen decided alike, the password said once. */
@Controller
public class SignManyPage {
    private final ReadRounds rounds;
    private final RoundLook look;
    private final ActOverSet over;
    private final PasswordAgain again;

    public SignManyPage(ReadRounds rounds, RoundLook look, ActOverSet over, PasswordAgain again) {
        this.rounds = rounds;
        this.look = look;
        this.over = over;
        this.again = again;
    }

    /** @param items documents whose rounds are meant; all that waits for the actor where none are */
    @GetMapping("/sign")
    String page(Actor actor, @RequestParam(defaultValue = "") String items, Model model) {
        List<Long> asked = items.isBlank() ? List.of() : Pages.ids(items);
        ReadRounds.Many many = rounds.many(actor, asked);
        List<RoundView> all = new ArrayList<>(
                many.can().stream().map(ReadRounds.Waiting::view).toList());
        if (asked.size() > 0
                && many.none().isEmpty()
                && all.size() + many.cannot().size() == 1) {
            RoundView one = all.isEmpty() ? many.cannot().keySet().iterator().next() : all.get(0);
            return "redirect:/rounds/" + one.round().id();
        }
        model.addAttribute("many", many);
        model.addAttribute("items", items);
        model.addAttribute("differences", look.differences(all));
        if (!all.isEmpty()) {
            look.fill(actor, all.get(0), RoundLook.shown(all.get(0), Optional.empty()), "", model);
        }
        return "round/many";
    }

    /** The sheet of one of them, as part of the page. */
    @GetMapping("/rounds/{id}/look")
    String look(Actor actor, @PathVariable long id, @RequestParam Optional<Long> document, Model model) {
        RoundView view = rounds.round(actor, id);
        look.fill(actor, view, RoundLook.shown(view, document), "", model);
        return "round/_look :: look";
    }

    /**
     * Decides what was chosen.
     *
     * @param document the first document of each round; a field {@code seen.ID} says what the page showed of it
     */
    @PostMapping("/sign")
    String sign(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") List<Long> document,
            @RequestParam String decision,
            @RequestParam(defaultValue = "") String remark,
            @RequestParam(defaultValue = "") String password,
            @RequestParam Map<String, String> form) {
        if (document.isEmpty()) {
            throw Refused.because("sign.none", "Nothing is chosen.", "Choose what you decide; nothing was signed.");
        }
        Decision decided = Decision.valueOf(decision.toUpperCase(Locale.ROOT));
        Wish wish = Wish.sign(decided, remark).saidAgain(decided.signs() && again.said(actor, password));
        Map<Long, String> shown = new HashMap<>();
        for (long id : document) shown.put(id, form.getOrDefault("seen." + id, ""));
        return "redirect:/runs/" + over.beginAsShown(actor, Run.What.SIGN, document, wish, shown, actKey);
    }
}
