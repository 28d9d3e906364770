package mintshelf.app.page.house;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Rows;
import mintshelf.app.use.change.UnderWay;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadDistribution;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.ChangeControlRule.Sentence;
import mintshelf.core.house.ChangeControlRule.Starts;
import mintshelf.core.house.Subject;
import mintshelf.core.signoff.Asked;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Change control: who may start next revisions of which kinds on which shelves, and who is told. */
@Controller
public class ChangeControlPages {
    private final ReadRules read;
    private final ReadDistribution names;
    private final KeepRules keep;
    private final UnderWay underWay;

    public ChangeControlPages(ReadRules read, ReadDistribution names, KeepRules keep, UnderWay underWay) {
        this.read = read;
        this.names = names;
        this.keep = keep;
        this.underWay = underWay;
    }

    /**
     * A sentence as the page shows it.
     *
     * @param starts a way to start, or who alone may, as its field has it
     * @param some names of those who may, where only some may
     * @param told names of those who are told
     */
    public record Line(Sentence sentence, String starts, List<String> some, List<String> told) {}

    @GetMapping("/house/change-control")
    String page(Actor actor, @RequestParam Optional<Integer> beside, Model model) {
        ChangeControlRule rule = (ChangeControlRule)
                RulePages.editions(read, actor, Subject.CHANGE_CONTROL, ChangeControlRule.CODE, beside, model)
                        .get(0)
                        .rule();
        model.addAttribute(
                "lines",
                rule.sentences().stream()
                        .map(s -> new Line(
                                s,
                                s.some()
                                        .map(ChangeControlPages::field)
                                        .orElse(s.starts().name()),
                                s.some().map(a -> names.names(actor, a)).orElse(List.of()),
                                s.told().map(a -> names.names(actor, a)).orElse(List.of())))
                        .toList());
        UnderWay.View underWay = this.underWay.beside(actor);
        model.addAttribute("underWay", underWay);
        model.addAttribute("underWayIds", Rows.joined(underWay.documents()));
        model.addAttribute("ways", List.of(Starts.BY_REQUEST, Starts.BY_ORDER, Starts.IN_ONE));
        return "house/change-control";
    }

    /** Somebody asked, as fields of forms have them. */
    private static String field(Asked who) {
        return who.kind() + ":" + who.code();
    }

    /**
     * Fields {@code kind.N}, {@code shelf.N}, {@code starts.N} (a way, or who alone may), {@code told.N}, {@code above.N} (NEW where what is revised needs a new number); a sentence that does not say how
     * is taken out.
     */
    @PostMapping("/house/change-control")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        List<Sentence> sentences = new ArrayList<>();
        for (int i = 0; i <= ChangeControlRule.MOST; i++) {
            String starts = form.getOrDefault("starts." + i, "");
            String told = form.getOrDefault("told." + i, "");
            if (starts.isEmpty()) continue;
            boolean some = starts.contains(":");
            Starts way = Starts.BY_HAND;
            for (Starts s : Starts.values()) if (s.name().equals(starts)) way = s;
            sentences.add(new Sentence(
                    form.getOrDefault("kind." + i, ""),
                    form.getOrDefault("shelf." + i, ""),
                    some ? Starts.BY_SOME : way,
                    some ? Optional.of(SignOffPages.asked(starts)) : Optional.empty(),
                    told.isEmpty() ? Optional.empty() : Optional.of(SignOffPages.asked(told)),
                    form.getOrDefault("above." + i, "").equals("NEW") ? Optional.of(false) : Optional.empty()));
        }
        return "redirect:" + keep.keep(actor, actKey, new ChangeControlRule(sentences), edition, why);
    }
}
