package mintshelf.app.page.round;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.use.round.RemindRounds;
import mintshelf.app.use.round.RemindRounds.OpenRound;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Open rounds, for who keeps order: what is late, of whom it waits, reminding. */
@Controller
public class OpenRoundsPage {
    private static final List<String> GROUPS = List.of("Overdue", "Due today", "Later");
    private final RemindRounds rounds;

    public OpenRoundsPage(RemindRounds rounds) {
        this.rounds = rounds;
    }

    /** Rounds under one heading. */
    public record Group(String name, List<OpenRound> rounds) {}

    /** A person with the questions that wait for them. */
    public record Waiting(Person person, List<OpenRound> rounds) {}

    @GetMapping("/open-rounds")
    String page(Actor actor, @RequestParam(defaultValue = "") String only, Model model) {
        List<OpenRound> all = rounds.open(actor);
        List<OpenRound> shown = all.stream().filter(o -> fits(o, only)).toList();
        model.addAttribute("all", all);
        model.addAttribute("most", all.size() == RemindRounds.MOST);
        model.addAttribute("only", only);
        model.addAttribute("shown", shown);
        model.addAttribute(
                "groups",
                GROUPS.stream()
                        .map(g -> new Group(
                                g,
                                shown.stream().filter(o -> o.when().equals(g)).toList()))
                        .filter(g -> !g.rounds().isEmpty())
                        .toList());
        model.addAttribute(
                "overdue", all.stream().filter(o -> fits(o, "overdue")).count());
        model.addAttribute("today", all.stream().filter(o -> fits(o, "today")).count());
        model.addAttribute("nobody", all.stream().filter(o -> fits(o, "nobody")).count());
        Map<String, List<OpenRound>> byName = new TreeMap<>();
        Map<String, Person> people = new TreeMap<>();
        for (OpenRound o : all) {
            for (Person p : o.waits()) {
                byName.computeIfAbsent(p.name(), n -> new ArrayList<>()).add(o);
                people.put(p.name(), p);
            }
        }
        model.addAttribute(
                "waiting",
                byName.entrySet().stream()
                        .map(e -> new Waiting(people.get(e.getKey()), e.getValue()))
                        .toList());
        return "round/open";
    }

    private static boolean fits(OpenRound o, String only) {
        return switch (only) {
            case "overdue" -> o.late();
            case "today" -> o.dueToday();
            case "nobody" -> o.waits().isEmpty();
            default -> true;
        };
    }

    @PostMapping("/open-rounds")
    String remind(Actor actor, @RequestParam String actKey, @RequestParam(defaultValue = "") List<Long> round) {
        return "redirect:"
                + rounds.remind(actor, actKey, round.stream().limit(200).toList());
    }
}
