package mintshelf.app.page.hold;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.hold.BreakHold;
import mintshelf.app.use.hold.CheckOut;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Checking out, giving back, breaking a hold, and asking for it. */
@Controller
public class CheckOutPages {
    private final CheckOut checkOut;
    private final BreakHold breakHold;
    private final Habits habits;
    private final ReadDocument read;

    public CheckOutPages(CheckOut checkOut, BreakHold breakHold, Habits habits, ReadDocument read) {
        this.checkOut = checkOut;
        this.breakHold = breakHold;
        this.habits = habits;
        this.read = read;
    }

    @GetMapping("/check-out")
    String planCheckOut(Actor actor, @RequestParam String items, @RequestParam Optional<String> along, Model model) {
        CheckOut.Plan plan = checkOut.plan(actor, Pages.ids(items), along.map(With::of));
        model.addAttribute("unseen", along.isEmpty() && plan.isQuiet() && habits.quiet(actor, "check-out"));
        model.addAttribute("plan", plan);
        model.addAttribute("items", items);
        model.addAttribute(
                "opening", plan.rows().stream().filter(CheckOut.Row::opens).count());
        model.addAttribute("choices", choices(items, plan));
        return "hold/checkout";
    }

    /** A thing that may go along, with the address at which it does, or does not any more. */
    public record Choice(String words, boolean chosen, String href) {}

    private static List<Choice> choices(String items, CheckOut.Plan plan) {
        List<Choice> choices = new ArrayList<>();
        for (With with : plan.offered()) {
            Set<With> other = EnumSet.noneOf(With.class);
            other.addAll(plan.with());
            boolean chosen = !other.add(with);
            if (chosen) other.remove(with);
            // All levels hold the first one.
            else if (with == With.ALL_LEVELS) other.remove(With.FIRST_LEVEL);
            else if (with == With.FIRST_LEVEL) other.remove(With.ALL_LEVELS);
            choices.add(
                    new Choice(plan.words(with), chosen, "/check-out?items=" + items + "&along=" + With.codes(other)));
        }
        return choices;
    }

    @PostMapping("/check-out")
    String takeHold(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String desk,
            @RequestParam(defaultValue = "") String purpose,
            @RequestParam Optional<String> along,
            @RequestParam MultiValueMap<String, String> form) {
        List<Long> hold = new ArrayList<>(Pages.ids(items));
        List<Long> copies = new ArrayList<>();
        boolean[] holds = {false};
        form.forEach((name, values) -> {
            if (!name.matches("row\\.\\d{1,18}")) return;
            long id = Long.parseLong(name.substring(4));
            if (values.get(0).equals("HOLD")) holds[0] |= hold.add(id);
            if (values.get(0).equals("COPY")) copies.add(id);
        });
        String to = checkOut.take(actor, hold, copies, actKey, desk, purpose);
        along.ifPresent(codes -> checkOut.remember(actor, hold.get(0), With.of(codes), holds[0]));
        if (copies.isEmpty() && along.isEmpty()) habits.tookAsProposed(actor, "check-out");
        return "redirect:" + to;
    }

    @GetMapping("/undo-check-out")
    String planUndo(Actor actor, @RequestParam String items, Model model) {
        model.addAttribute("rows", checkOut.undoPlan(actor, Pages.ids(items)));
        model.addAttribute("asked", Pages.ids(items));
        return "hold/undo";
    }

    @PostMapping("/undo-check-out")
    String undo(
            Actor actor,
            @RequestParam(defaultValue = "") String items,
            @RequestParam(defaultValue = "") List<Long> item,
            @RequestParam String actKey) {
        List<Long> all = new ArrayList<>(Pages.ids(items));
        item.stream().filter(id -> !all.contains(id)).limit(500).forEach(all::add);
        if (all.isEmpty()) throw new NotThere();
        return "redirect:" + checkOut.undo(actor, all, actKey);
    }

    @GetMapping("/documents/{id}/break-hold")
    String breakPage(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("view", read.view(actor, id));
        return "hold/break";
    }

    @PostMapping("/documents/{id}/break-hold")
    String breakHold(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam long hold,
            @RequestParam String reason) {
        return "redirect:" + breakHold.breakHold(actor, id, actKey, hold, reason);
    }

    @PostMapping("/documents/{id}/ask")
    String ask(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String message) {
        return "redirect:" + breakHold.ask(actor, id, actKey, message);
    }
}
