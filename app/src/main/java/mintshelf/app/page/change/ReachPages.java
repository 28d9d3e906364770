package mintshelf.app.page.change;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Rows;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.KeepImpact;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.app.use.change.ReadImpact.Row;
import mintshelf.core.base.Texts;
import mintshelf.core.change.Impact.Verdict;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** How far a change reaches: its picture, its list, what people say against the rule. */
@Controller
public class ReachPages {
    private static final int PAGE = 60;
    private final ReadImpact read;
    private final KeepImpact keep;
    private final AskForChange ask;

    public ReachPages(ReadImpact read, KeepImpact keep, AskForChange ask) {
        this.read = read;
        this.keep = keep;
        this.ask = ask;
    }

    /**
     * @param only a verdict
     * @param find in numbers and titles
     * @param open levels whose folds are opened
     * @param page of the list
     */
    @GetMapping("/changes/{id}/reach")
    String reach(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String only,
            @RequestParam(defaultValue = "") String find,
            @RequestParam(defaultValue = "") String open,
            @RequestParam(defaultValue = "0") int page,
            Model model) {
        ReadImpact.View view = read.of(actor, id);
        Optional<Verdict> verdict = verdict(only);
        String words = Texts.key(find);
        Predicate<Row> shows = r -> verdict.map(v -> v == r.node().verdict()).orElse(true)
                && (words.isEmpty()
                        || Texts.key(r.seen().document().number()).contains(words)
                        || Texts.key(r.seen().document().title()).contains(words));
        Set<Integer> opened = Arrays.stream(open.split(","))
                .filter(o -> o.matches("\\d{1,4}"))
                .map(Integer::valueOf)
                .collect(Collectors.toSet());
        List<Row> listed = view.reach().rows().stream().filter(shows).toList();
        int from = Math.max(0, Math.min(page, listed.size() / PAGE)) * PAGE;
        model.addAttribute("view", view);
        model.addAttribute("picture", ReachPicture.of(view.reach().rows(), shows, opened));
        model.addAttribute("listed", listed.subList(from, Math.min(from + PAGE, listed.size())));
        model.addAttribute("many", listed.size());
        model.addAttribute("from", from);
        model.addAttribute("page", from / PAGE);
        model.addAttribute("more", from + PAGE < listed.size());
        model.addAttribute("only", verdict.map(Verdict::name).orElse(""));
        model.addAttribute("find", find);
        model.addAttribute("open", open);
        model.addAttribute("choices", KeepImpact.Says.values());
        takes(actor, view, model);
        return "change/reach";
    }

    /** What can be taken into the order at once, and why the rest cannot. */
    private void takes(Actor actor, ReadImpact.View view, Model model) {
        List<Long> proposed = view.reach().proposed().stream()
                .map(r -> r.seen().spine().id())
                .limit(AskForChange.MOST)
                .toList();
        boolean grows = ask.grows(actor, view.paper());
        List<AskForChange.Row> rows = proposed.isEmpty() || !grows ? List.of() : ask.plan(actor, proposed);
        List<AskForChange.Row> goes =
                rows.stream().filter(r -> r.refusal().isEmpty()).toList();
        model.addAttribute("grows", grows);
        model.addAttribute("goes", goes.size());
        model.addAttribute(
                "behind", goes.stream().filter(r -> !r.ahead().isEmpty()).toList());
        model.addAttribute(
                "goesIds", Rows.joined(goes.stream().map(AskForChange.Row::seen).toList()));
        model.addAttribute(
                "stay",
                rows.stream().filter(r -> r.refusal().isPresent()).limit(12).toList());
        model.addAttribute("proposed", proposed.size());
    }

    private static Optional<Verdict> verdict(String name) {
        return Arrays.stream(Verdict.values())
                .filter(v -> v.name().equals(name.toUpperCase(Locale.ROOT)))
                .findFirst();
    }

    @PostMapping("/changes/{id}/reach")
    String say(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam long item,
            @RequestParam String says,
            @RequestParam(defaultValue = "") String why) {
        KeepImpact.Says word = Arrays.stream(KeepImpact.Says.values())
                .filter(s -> s.name().equals(says))
                .findFirst()
                .orElseThrow(NotThere::new);
        return "redirect:" + keep.say(actor, id, item, actKey, word, why);
    }
}
