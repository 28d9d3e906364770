package mintshelf.app.page.house;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.access.Right;
import mintshelf.core.fact.FactForm;
import mintshelf.core.fact.FactHands;
import mintshelf.core.fact.FactSource;
import mintshelf.core.fact.FactType;
import mintshelf.core.fact.FactUse;
import mintshelf.core.house.FactRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The facts that fact sheets are made of. */
@Controller
public class FactPages {
    /** Rights by which a fact can be typed. */
    private static final List<Right> HANDS = List.of(
            Right.CHANGE, Right.SIGN, Right.DECIDE_CHANGES, Right.LIBRARIAN, Right.KEEP_SHELF, Right.KEEP_HOUSE_RULES);

    private final ReadRules read;
    private final KeepRules keep;

    public FactPages(ReadRules read, KeepRules keep) {
        this.read = read;
        this.keep = keep;
    }

    /** A fact with the kinds on whose sheets it stands. */
    public record FactLine(FactRule fact, int edition, List<String> kinds) {}

    @GetMapping("/house/facts")
    String all(Actor actor, Model model) {
        List<KindRule> kinds = read.all(actor, Subject.KIND).stream()
                .map(e -> (KindRule) e.rule())
                .toList();
        model.addAttribute(
                "facts",
                read.all(actor, Subject.FACT).stream()
                        .map(e -> new FactLine(
                                (FactRule) e.rule(),
                                e.number(),
                                on(kinds, e.rule().code())))
                        .toList());
        model.addAttribute("types", FactType.values());
        return "house/facts";
    }

    private static List<String> on(List<KindRule> kinds, String fact) {
        return kinds.stream()
                .filter(k -> k.facts().stream().anyMatch(f -> f.fact().equals(fact)))
                .map(KindRule::name)
                .toList();
    }

    @GetMapping("/house/facts/{code}")
    String one(Actor actor, @PathVariable String code, @RequestParam Optional<Integer> beside, Model model) {
        model.addAttribute(
                "fact",
                RulePages.editions(read, actor, Subject.FACT, code, beside, model)
                        .get(0)
                        .rule());
        List<KindRule> kinds = read.all(actor, Subject.KIND).stream()
                .map(e -> (KindRule) e.rule())
                .filter(k -> k.facts().stream().anyMatch(f -> f.fact().equals(code)))
                .toList();
        model.addAttribute("kinds", kinds);
        model.addAttribute("sources", FactSource.values());
        model.addAttribute("rights", HANDS);
        return "house/fact";
    }

    private static List<String> list(String text) {
        return Arrays.stream(text.split("[,\\n]", 250))
                .map(String::strip)
                .filter(c -> !c.isEmpty())
                .toList();
    }

    private static String said(Map<String, String> form, String field) {
        return form.getOrDefault(field, "").strip();
    }

    private static FactForm form(FactType type, Map<String, String> form) {
        return new FactForm(
                type,
                said(form, "unit"),
                said(form, "pattern"),
                list(form.getOrDefault("choices", "")),
                said(form, "least").replace(',', '.'),
                said(form, "most").replace(',', '.'));
    }

    private static Optional<Right> right(Map<String, String> form, String field, Optional<Right> otherwise) {
        String word = form.get(field);
        if (word == null) return otherwise;
        for (Right right : Right.values()) if (right.name().equals(word)) return Optional.of(right);
        return Optional.empty();
    }

    private static FactUse use(Map<String, String> form, FactUse was) {
        FactSource source = was.source();
        for (FactSource s : FactSource.values()) if (s.name().equals(form.get("source"))) source = s;
        FactHands hands = was.hands();
        boolean computed = source == FactSource.COMPUTED;
        return new FactUse(
                computed ? "" : said(form, "preset"),
                source,
                computed ? said(form, "formula") : "",
                source.isRead() ? said(form, "property") : "",
                new FactHands(
                        right(form, "preparing", hands.preparing()),
                        right(form, "deciding", hands.deciding()),
                        right(form, "released", hands.released()),
                        form.containsKey("asksReason") ? form.containsKey("withReason") : hands.reason()));
    }

    @PostMapping("/house/facts")
    String make(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String label,
            @RequestParam(defaultValue = "") String code,
            @RequestParam FactType type,
            @RequestParam Map<String, String> form) {
        FactRule made = new FactRule(code.strip(), label.strip(), form(type, form), use(form, FactUse.USUAL));
        return "redirect:" + keep.keep(actor, actKey, made, 0, "");
    }

    @PostMapping("/house/facts/{code}")
    String keep(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam String label,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        FactRule was =
                (FactRule) read.editions(actor, Subject.FACT, code).get(0).rule();
        FactRule now = new FactRule(code, label.strip(), form(was.type(), form), use(form, was.use()));
        return "redirect:" + keep.keep(actor, actKey, now, edition, why);
    }
}
