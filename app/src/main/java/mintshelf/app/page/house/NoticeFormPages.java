package mintshelf.app.page.house;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.base.Texts;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.house.NoticeFormRule;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The form of change notices: which blocks, in which order. */
@Controller
public class NoticeFormPages {
    /** Blocks of own words that can be added at once. */
    private static final int MORE = 2;

    private final ReadRules read;
    private final KeepRules keep;

    public NoticeFormPages(ReadRules read, KeepRules keep) {
        this.read = read;
        this.keep = keep;
    }

    /** @param at its place, counted from 1; empty for a block that is not shown */
    public record Line(NoticeForm.Block block, String at) {}

    @GetMapping("/house/notice-form")
    String page(Actor actor, @RequestParam Optional<Integer> beside, Model model) {
        NoticeFormRule rule = (NoticeFormRule)
                RulePages.editions(read, actor, Subject.NOTICE_FORM, NoticeFormRule.CODE, beside, model)
                        .get(0)
                        .rule();
        List<Line> lines = new ArrayList<>();
        for (NoticeForm.Block block : rule.blocks()) lines.add(new Line(block, Integer.toString(lines.size() + 1)));
        for (NoticeForm.Show show : NoticeForm.Show.values()) {
            boolean there = rule.blocks().stream().anyMatch(b -> b.show() == show);
            if (!there && show != NoticeForm.Show.TEXT) lines.add(new Line(NoticeForm.Block.of(show), ""));
        }
        for (int i = 0; i < MORE; i++) lines.add(new Line(NoticeForm.Block.of(NoticeForm.Show.TEXT), ""));
        model.addAttribute("lines", lines);
        model.addAttribute("fields", NoticeForm.FIELDS);
        return "house/notice-form";
    }

    /** Fields {@code show.N}: a block; {@code at.N}: its place, empty where it is not shown; {@code text.N}: own words. Places need not be whole, nor without gaps. */
    @PostMapping("/house/notice-form")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        Map<String, NoticeForm.Block> placed = new TreeMap<>();
        for (int i = 0; i < 60; i++) {
            String at = form.getOrDefault("at." + i, "").strip().replace(',', '.');
            if (!at.matches("\\d{1,4}(\\.\\d{1,4})?")) continue;
            NoticeForm.Show show = NoticeForm.Show.TEXT;
            for (NoticeForm.Show s : NoticeForm.Show.values()) {
                if (s.name().equals(form.get("show." + i))) show = s;
            }
            String text = show == NoticeForm.Show.TEXT
                    ? Texts.optionalLines("Own words", form.getOrDefault("text." + i, ""), 5000)
                            .orElseThrow(Refused::new)
                    : "";
            // Of one place the one that stands further up comes first.
            placed.put(
                    String.format(Locale.ROOT, "%012.4f %02d", Double.parseDouble(at), i),
                    new NoticeForm.Block(show, text));
        }
        return "redirect:" + keep.keep(actor, actKey, new NoticeFormRule(List.copyOf(placed.values())), edition, why);
    }
}
