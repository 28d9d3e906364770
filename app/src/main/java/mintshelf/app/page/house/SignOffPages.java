package mintshelf.app.page.house;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.house.ReadSignOffs;
import mintshelf.app.use.house.TryIt;
import mintshelf.app.use.person.ReadPeople;
import mintshelf.core.house.House;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.house.Subject;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Sign-off rules: all of them in sentences, one with the days that it takes in a case, its lines edited where they stand. */
@Controller
public class SignOffPages {
    private static final int SPOTS = 500;
    private static final int PEOPLE = 500;

    private final ReadRules read;
    private final ReadSignOffs signOffs;
    private final KeepRules keep;
    private final TryIt tryIt;
    private final ReadPeople people;

    public SignOffPages(ReadRules read, ReadSignOffs signOffs, KeepRules keep, TryIt tryIt, ReadPeople people) {
        this.read = read;
        this.signOffs = signOffs;
        this.keep = keep;
        this.tryIt = tryIt;
        this.people = people;
    }

    @GetMapping("/house/sign-offs")
    String all(Actor actor, Model model) {
        model.addAttribute("house", read.house(actor));
        model.addAttribute("all", read.all(actor, Subject.SIGN_OFF));
        model.addAttribute("uses", signOffs.uses(actor));
        return "house/sign-offs";
    }

    /** Whom a line can ask, as the form chooses it: {@code ROLE:checker}. */
    public record Choice(String value, String says) {}

    private List<Choice> choices(Actor actor, House house, SignOffRule rule) {
        List<Choice> all = new ArrayList<>();
        new TreeMap<>(house.roles()).forEach((code, name) -> all.add(new Choice("ROLE:" + code, "the role " + name)));
        house.groups().entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .forEach(g -> all.add(new Choice("GROUP:" + g.getKey(), "the group " + g.getValue())));
        signOffs.signers(actor).forEach((id, name) -> all.add(new Choice("PERSON:" + id, name)));
        // Whom a line names already stays choosable, whatever became of their rights.
        for (SignOffLine line : rule.asked()) {
            String value = line.who().kind() + ":" + line.who().code();
            if (all.stream().noneMatch(c -> c.value().equals(value))) {
                all.add(new Choice(value, SignOffRule.name(line.who(), house)));
            }
        }
        return all;
    }

    @GetMapping("/house/sign-offs/{code}")
    String one(
            Actor actor,
            @PathVariable String code,
            @RequestParam Optional<Integer> beside,
            @RequestParam(defaultValue = "0") long person,
            @RequestParam(defaultValue = "0") long folder,
            @RequestParam(defaultValue = "") String kind,
            @RequestParam(defaultValue = "") String sent,
            Model model) {
        SignOffRule rule = (SignOffRule) RulePages.editions(read, actor, Subject.SIGN_OFF, code, beside, model)
                .get(0)
                .rule();
        House house = read.house(actor);
        ReadSignOffs.Case on = signOffs.usual(actor, code, person, folder, kind, day(sent));
        model.addAttribute("rule", rule);
        model.addAttribute("rules", new TreeMap<>(house.signOffNames()));
        model.addAttribute("on", on);
        model.addAttribute("days", signOffs.days(actor, rule, on));
        model.addAttribute("uses", signOffs.uses(actor).getOrDefault(code, List.of()));
        model.addAttribute("spots", tryIt.spots(actor, SPOTS));
        model.addAttribute("people", people.people(actor, "", 0, PEOPLE));
        model.addAttribute("choices", choices(actor, house, rule));
        model.addAttribute("policies", Policy.values());
        model.addAttribute("most", SignOffRule.MOST_LINES);
        return "house/sign-off";
    }

    static Optional<LocalDate> day(String text) {
        try {
            return text.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(text.strip()));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** Fields {@code who.N}, {@code step.N} …: line N of the rule; one that asks nobody is taken out. */
    @PostMapping("/house/sign-offs/{code}")
    String keep(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam String name,
            @RequestParam Policy policy,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        List<SignOffLine> lines = new ArrayList<>();
        for (int i = 0; i <= SignOffRule.MOST_LINES; i++) {
            String who = form.getOrDefault("who." + i, "");
            if (who.isEmpty()) continue;
            String needed = form.getOrDefault("needed." + i, "1").strip();
            lines.add(new SignOffLine(
                    number(form.getOrDefault("step." + i, "1")),
                    asked(who),
                    needed.equalsIgnoreCase("all") ? SignOffLine.EVERYBODY : Math.max(1, number(needed)),
                    form.getOrDefault("meaning." + i, "").strip(),
                    form.getOrDefault("fact." + i, "").strip(),
                    form.getOrDefault("day." + i, "").strip(),
                    number(form.getOrDefault("days." + i, "2")),
                    !"no".equals(form.get("eyes." + i)),
                    "yes".equals(form.get("password." + i))));
        }
        SignOffRule now = new SignOffRule(code, name.strip(), lines, policy);
        return "redirect:" + keep.keep(actor, actKey, now, edition, why);
    }

    static Asked asked(String value) {
        String[] parts = value.split(":", 2);
        for (Asked.Kind kind : Asked.Kind.values()) {
            if (kind.name().equals(parts[0])) return new Asked(kind, parts.length > 1 ? parts[1] : "");
        }
        return new Asked(Asked.Kind.ROLE, value);
    }

    /** What is no number is more than any rule takes, and refused in words. */
    private static int number(String text) {
        String number = text.strip();
        return number.matches("\\d{1,4}") ? Integer.parseInt(number) : 9999;
    }
}
