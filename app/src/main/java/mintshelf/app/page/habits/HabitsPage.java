package mintshelf.app.page.habits;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.TakeAlong.With;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the shelf remembers of how a person likes their plans; all of it can be forgotten. */
@Controller
public class HabitsPage {
    private final Habits habits;

    public HabitsPage(Habits habits) {
        this.habits = habits;
    }

    /** A remembered answer, as a sentence. */
    public record Habit(String name, String says) {}

    @GetMapping("/habits")
    String show(Actor actor, Model model) {
        List<Habit> lines = new ArrayList<>();
        habits.all(actor).forEach((name, value) -> lines.add(new Habit(name, says(name, value))));
        model.addAttribute("lines", lines);
        model.addAttribute("quiet", habits.quiet(actor, "check-out"));
        model.addAttribute("straight", habits.sendsStraight(actor));
        return "habits/page";
    }

    private static String says(String name, String value) {
        String[] parts = name.split("\\.");
        String kind = parts[parts.length - 1].replace('-', ' ');
        return switch (parts[1]) {
            case "along" -> {
                List<String> words = With.of(value).stream().map(With::words).toList();
                yield "Checking out a " + kind + " takes along "
                        + (words.isEmpty() ? "nothing" : String.join(" and ", words)) + ".";
            }
            case "holds" ->
                "Of what goes along with a " + kind + ", "
                        + (value.equals("yes")
                                ? "what can be checked out is proposed to be."
                                : "components are proposed as copies.");
            case "straight" ->
                "What is checked in and then sent to review "
                        + (value.equals("yes")
                                ? "goes straight to those whom the rule asks."
                                : "is shown with who is asked first.");
            default ->
                "Plans of the " + kind + " without choices " + (value.equals("yes") ? "pass unseen." : "are shown.");
        };
    }

    @PostMapping("/habits/forget")
    String forget(Actor actor, @RequestParam Optional<String> name) {
        habits.forget(actor, name.filter(n -> n.startsWith("habit.")));
        return "redirect:/habits";
    }

    /** Lets plans of checking out that have neither blocks nor choices pass unseen, or shows them again. */
    @PostMapping("/habits/quiet")
    String quiet(Actor actor, @RequestParam Map<String, String> form) {
        habits.choseQuiet(actor, "check-out", "yes".equals(form.get("quiet")));
        return "redirect:/habits";
    }

    /** Sends what is checked in straight to review, or shows who is asked first. */
    @PostMapping("/habits/straight")
    String straight(Actor actor, @RequestParam Map<String, String> form) {
        habits.choseStraight(actor, "yes".equals(form.get("straight")));
        return "redirect:/habits";
    }
}
