package mintshelf.app.page.check;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Beside;
import mintshelf.app.store.house.CheckRuleStore.Edition;
import mintshelf.app.use.check.KeepCheckRules;
import mintshelf.app.use.check.WaiveFindings;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.check.CheckRules.Severity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The rules that sheets are held to, and letting findings pass. */
@Controller
public class CheckRulePages {
    private final KeepCheckRules keep;
    private final WaiveFindings waive;

    public CheckRulePages(KeepCheckRules keep, WaiveFindings waive) {
        this.keep = keep;
        this.waive = waive;
    }

    @GetMapping("/check-rules")
    String all(Actor actor, Model model) {
        model.addAttribute("kinds", keep.all(actor));
        return "check/list";
    }

    /** A rule as the form shows it. */
    public record RuleLine(String code, String says, String severity) {}

    @GetMapping("/check-rules/{kind}")
    String edit(Actor actor, @PathVariable String kind, @RequestParam Optional<Integer> beside, Model model) {
        List<Edition> editions = keep.editions(actor, kind);
        Beside.fill(model, editions, Edition::note, keep::between, beside);
        KeepCheckRules.KindRules rules = keep.of(actor, kind);
        CheckRules now = rules.edition().rules();
        model.addAttribute("kind", rules.kind());
        model.addAttribute("edition", editions.get(0).note());
        model.addAttribute("rules", now);
        model.addAttribute("waivedBy", rules.edition().waivedBy());
        model.addAttribute("hides", keep.hidesRevising(actor, kind));
        model.addAttribute(
                "lines",
                Arrays.stream(Rule.values())
                        .map(r -> new RuleLine(
                                r.name(),
                                r.says(),
                                Optional.ofNullable(now.severities().get(r))
                                        .map(Enum::name)
                                        .orElse("OFF")))
                        .toList());
        model.addAttribute("demanded", String.join(", ", now.demanded()));
        model.addAttribute("layers", now.layers().stream().sorted().collect(Collectors.joining(", ")));
        model.addAttribute("roles", keep.roles(actor));
        return "check/edit";
    }

    @PostMapping("/check-rules/{kind}/being-revised")
    String hideRevising(
            Actor actor, @PathVariable String kind, @RequestParam String actKey, @RequestParam boolean hide) {
        return "redirect:" + keep.hideRevising(actor, actKey, kind, hide);
    }

    @PostMapping("/check-rules/{kind}")
    String keep(
            Actor actor,
            @PathVariable String kind,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam String waivedby,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        return "redirect:" + keep.keep(actor, actKey, kind, edition, read(form), waivedby, why);
    }

    @PostMapping("/check-rules/{kind}/set-back")
    String setBack(
            Actor actor,
            @PathVariable String kind,
            @RequestParam String actKey,
            @RequestParam int number,
            @RequestParam int edition) {
        return "redirect:" + keep.setBack(actor, actKey, kind, number, edition);
    }

    private static CheckRules read(Map<String, String> form) {
        Map<Rule, Severity> severities = new EnumMap<>(Rule.class);
        for (Rule rule : Rule.values()) {
            String severity = form.getOrDefault("rule." + rule.name(), "OFF");
            if (severity.equals("HINT")) severities.put(rule, Severity.HINT);
            if (severity.equals("BINDING")) severities.put(rule, Severity.BINDING);
        }
        String least = form.getOrDefault("least", "").strip().replace(',', '.');
        if (!least.matches("\\d{1,2}(\\.\\d{1,2})?") || Double.parseDouble(least) <= 0) {
            throw Refused.because("check.rules", "“" + least + "” is no height in mm.", "Nothing was changed.");
        }
        Set<String> layers = list(form.getOrDefault("layers", "")).stream()
                .map(l -> l.toUpperCase(Locale.ROOT))
                .collect(Collectors.toSet());
        return new CheckRules(severities, list(form.getOrDefault("demanded", "")), Double.parseDouble(least), layers);
    }

    private static List<String> list(String text) {
        return Arrays.stream(text.split(",", 200))
                .map(String::strip)
                .filter(t -> !t.isEmpty())
                .distinct()
                .toList();
    }

    @PostMapping("/documents/{id}/waive")
    String waive(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String finding,
            @RequestParam String words) {
        return "redirect:" + waive.waive(actor, id, actKey, finding, words);
    }

    @PostMapping("/documents/{id}/waivers/{waiver}/end")
    String takeBack(Actor actor, @PathVariable long id, @PathVariable long waiver, @RequestParam String actKey) {
        return "redirect:" + waive.takeBack(actor, id, actKey, waiver);
    }
}
