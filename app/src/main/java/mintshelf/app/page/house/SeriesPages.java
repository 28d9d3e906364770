package mintshelf.app.page.house;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRanges;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.app.use.house.ReadSeries;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Number series: pattern, scope, where each counter stands, gaps. */
@Controller
public class SeriesPages {
    private final ReadRules read;
    private final ReadSeries series;
    private final KeepRules keep;
    private final KeepRanges ranges;

    public SeriesPages(ReadRules read, ReadSeries series, KeepRules keep, KeepRanges ranges) {
        this.read = read;
        this.series = series;
        this.keep = keep;
        this.ranges = ranges;
    }

    @GetMapping("/house/series")
    String all(Actor actor, Model model) {
        model.addAttribute("all", read.all(actor, Subject.SERIES));
        return "house/series-list";
    }

    private List<KindRule> using(Actor actor, String code) {
        return read.all(actor, Subject.KIND).stream()
                .map(e -> (KindRule) e.rule())
                .filter(k -> k.series().equals(code))
                .toList();
    }

    @GetMapping("/house/series/{code}")
    String one(Actor actor, @PathVariable String code, @RequestParam Optional<Integer> beside, Model model) {
        SeriesRule rule = (SeriesRule) RulePages.editions(read, actor, Subject.SERIES, code, beside, model)
                .get(0)
                .rule();
        model.addAttribute("series", rule);
        model.addAttribute("scopes", SeriesRule.Counts.values());
        model.addAttribute("counters", series.counters(actor, code));
        model.addAttribute("ranges", series.ranges(actor, code));
        model.addAttribute("kinds", using(actor, code));
        return "house/series";
    }

    @PostMapping("/house/series/{code}/ranges")
    String reserve(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam String scope,
            @RequestParam int count,
            @RequestParam(defaultValue = "") String who,
            @RequestParam(defaultValue = "") String note) {
        return "redirect:" + ranges.reserve(actor, actKey, code, scope, count, who, note);
    }

    @PostMapping("/house/series/{code}/ranges/{range}/give-back")
    String giveBack(Actor actor, @PathVariable String code, @PathVariable long range, @RequestParam String actKey) {
        return "redirect:" + ranges.giveBack(actor, actKey, code, range);
    }

    @PostMapping("/house/series")
    String make(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String name,
            @RequestParam String pattern,
            @RequestParam SeriesRule.Counts counts) {
        return "redirect:" + keep.makeSeries(actor, actKey, name, pattern.strip(), counts);
    }

    @PostMapping("/house/series/{code}")
    String keep(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam String name,
            @RequestParam String pattern,
            @RequestParam SeriesRule.Counts counts,
            @RequestParam(defaultValue = "") String why) {
        SeriesRule now = new SeriesRule(code, name.strip(), pattern.strip(), counts);
        return "redirect:" + keep.keep(actor, actKey, now, edition, why);
    }
}
