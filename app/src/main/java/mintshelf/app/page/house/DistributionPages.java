package mintshelf.app.page.house;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadDistribution;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.house.DistributionRule.Way;
import mintshelf.core.house.House;
import mintshelf.core.house.Subject;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Distribution: who is told of which moments of which kinds and shelves, with the names that this means today. */
@Controller
public class DistributionPages {
    private final ReadRules read;
    private final ReadDistribution names;
    private final KeepRules keep;

    public DistributionPages(ReadRules read, ReadDistribution names, KeepRules keep) {
        this.read = read;
        this.names = names;
        this.keep = keep;
    }

    @GetMapping("/house/distribution")
    String page(Actor actor, @RequestParam Optional<Integer> beside, Model model) {
        DistributionRule rule = (DistributionRule)
                RulePages.editions(read, actor, Subject.DISTRIBUTION, DistributionRule.CODE, beside, model)
                        .get(0)
                        .rule();
        House house = read.house(actor);
        model.addAttribute("sentences", rule.sentences());
        model.addAttribute(
                "told", rule.sentences().stream().map(s -> names.told(actor, s)).toList());
        model.addAttribute("moments", Moment.values());
        model.addAttribute("ways", Way.values());
        model.addAttribute("times", DistributionRule.TIMES);
        model.addAttribute("house", house);
        return "house/distribution";
    }

    /** Fields {@code moment.N}, {@code kind.N}, {@code shelf.N}, {@code who.N}, {@code way.N}, {@code when.N}; a sentence that tells nobody is taken out. */
    @PostMapping("/house/distribution")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        List<Sentence> sentences = new ArrayList<>();
        for (int i = 0; i <= DistributionRule.MOST; i++) {
            String who = form.getOrDefault("who." + i, "");
            if (who.isEmpty()) continue;
            String word = form.getOrDefault("moment." + i, "");
            Moment moment = Moment.RELEASE;
            for (Moment m : Moment.values()) if (m.name().equals(word)) moment = m;
            Way way = Way.LINK;
            for (Way w : Way.values()) if (w.name().equals(form.get("way." + i))) way = w;
            sentences.add(new Sentence(
                    moment,
                    form.getOrDefault("kind." + i, ""),
                    form.getOrDefault("shelf." + i, ""),
                    SignOffPages.asked(who),
                    way,
                    MailTime.named(form.getOrDefault("when." + i, ""))));
        }
        return "redirect:" + keep.keep(actor, actKey, new DistributionRule(sentences), edition, why);
    }
}
