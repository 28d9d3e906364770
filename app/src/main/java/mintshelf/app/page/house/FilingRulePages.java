package mintshelf.app.page.house;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.content.ContentKind;
import mintshelf.core.house.FilingOrder;
import mintshelf.core.house.FilingOrder.Sentence;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The rules that give a new file its kind, as sentences in their order. */
@Controller
public class FilingRulePages {
    private static final int MOST = 200;
    private final ReadRules read;
    private final KeepRules keep;

    public FilingRulePages(ReadRules read, KeepRules keep) {
        this.read = read;
        this.keep = keep;
    }

    /** What contents a sentence may name: one, or the pictures, or any. */
    public record Contents(String value, String says) {}

    private static List<Contents> contents(List<Sentence> sentences) {
        List<Contents> all = new ArrayList<>(List.of(new Contents("", "A file of any content")));
        List<String> values = new ArrayList<>();
        for (Sentence s : sentences) values.add(value(s.contents()));
        for (ContentKind kind : ContentKind.values()) values.add(kind.name());
        values.stream()
                .filter(v -> !v.isEmpty())
                .distinct()
                .forEach(v -> all.add(new Contents(
                        v,
                        "A "
                                + String.join(
                                        " or ",
                                        kinds(v).stream()
                                                .map(ContentKind::words)
                                                .toList()))));
        return all;
    }

    static String value(List<ContentKind> contents) {
        return String.join("+", contents.stream().map(ContentKind::name).toList());
    }

    private static List<ContentKind> kinds(String value) {
        List<ContentKind> kinds = new ArrayList<>();
        for (String word : value.split("\\+", 20)) {
            for (ContentKind kind : ContentKind.values()) if (kind.name().equals(word)) kinds.add(kind);
        }
        return kinds;
    }

    /** A sentence as the form shows it. */
    public record Line(String contents, String named, String kind) {}

    @GetMapping("/house/filing")
    String all(Actor actor, @RequestParam Optional<Integer> beside, Model model) {
        FilingOrder order = (FilingOrder) RulePages.editions(read, actor, Subject.FILING, "filing", beside, model)
                .get(0)
                .rule();
        model.addAttribute("contents", contents(order.sentences()));
        model.addAttribute(
                "lines",
                order.sentences().stream()
                        .map(s -> new Line(value(s.contents()), s.named(), s.kind()))
                        .toList());
        model.addAttribute("copies", order.copies());
        model.addAttribute("ways", FilingOrder.Copies.values());
        return "house/filing";
    }

    private record Placed(Sentence sentence, int place, int row) {}

    @PostMapping("/house/filing")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam int edition,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        List<Placed> placed = new ArrayList<>();
        for (int row = 0; row <= MOST; row++) {
            String kind = form.getOrDefault("kind." + row, "");
            if (kind.isEmpty()) continue;
            String place = form.getOrDefault("place." + row, "").strip();
            placed.add(new Placed(
                    new Sentence(
                            kinds(form.getOrDefault("contents." + row, "")),
                            form.getOrDefault("named." + row, "").strip(),
                            kind),
                    place.matches("\\d{1,3}") ? Integer.parseInt(place) : 1000 + row,
                    row));
        }
        List<Sentence> sentences = placed.stream()
                .sorted(Comparator.comparingInt(Placed::place).thenComparingInt(Placed::row))
                .map(Placed::sentence)
                .toList();
        FilingOrder.Copies copies = form.getOrDefault("copies", "").equals("BY_RULE")
                ? FilingOrder.Copies.BY_RULE
                : FilingOrder.Copies.KEEP_KIND;
        return "redirect:" + keep.keep(actor, actKey, new FilingOrder(sentences, copies), edition, why);
    }
}
