package mintshelf.app.page.design;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Compared;
import mintshelf.app.use.compare.CompareModels;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.design.ReadOrigin;
import mintshelf.app.use.design.ReadOrigin.Origin;
import mintshelf.app.use.design.ReadOrigin.View;
import mintshelf.app.use.design.TakeUpOrigin;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.model.compare.ModelComparison;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What became of the document that another one was derived from: which of it goes over. */
@Controller
public class OriginPages {
    private final ReadOrigin read;
    private final TakeUpOrigin take;
    private final CompareSheets sheets;
    private final CompareModels models;

    public OriginPages(ReadOrigin read, TakeUpOrigin take, CompareSheets sheets, CompareModels models) {
        this.read = read;
        this.take = take;
        this.sheets = sheets;
        this.models = models;
    }

    @GetMapping("/documents/{id}/origin")
    String show(Actor actor, @PathVariable long id, Model model) {
        View view = read.view(actor, id);
        Origin origin = view.origin();
        Optional<Compared> drawn = view.three().isEmpty()
                ? Optional.empty()
                : sheets.draw(origin.base().content(), origin.theirs().content());
        model.addAttribute("view", view);
        model.addAttribute("origin", origin);
        model.addAttribute(
                "rows",
                view.rows().stream().filter(r -> r.fate() != ThreeWay.Fate.OWN).toList());
        model.addAttribute(
                "own",
                view.rows().stream().filter(r -> r.fate() == ThreeWay.Fate.OWN).toList());
        model.addAttribute("picture", drawn.map(Compared::svg).orElse(null));
        model.addAttribute(
                "models",
                models.compare(origin.base().content(), origin.theirs().content())
                        .map(ModelComparison::differences)
                        .orElse(List.of()));
        return "design/origin";
    }

    /** How much there is to take up, as a part of the document's page; empty where there is nothing. */
    @GetMapping("/documents/{id}/origin/count")
    String count(Actor actor, @PathVariable long id, Model model) {
        Optional<Origin> origin = read.origin(actor, id).filter(Origin::isBehind);
        model.addAttribute("origin", origin.orElse(null));
        model.addAttribute("count", origin.flatMap(this::count).orElse(null));
        return "design/_count";
    }

    /** How many there are, but for those of the sheet's form. */
    private Optional<Long> count(Origin origin) {
        return sheets.compare(origin.base().content(), origin.theirs().content())
                .map(c -> c.differences().stream().filter(d -> !d.form()).count())
                .or(() -> models.compare(
                                origin.base().content(), origin.theirs().content())
                        .map(c -> (long) c.differences().size()));
    }

    /** @param over numbers of the differences that go over; {@code aside} where nothing does */
    @PostMapping("/documents/{id}/origin")
    String take(
            Actor actor,
            @PathVariable long id,
            @RequestParam(required = false) List<Integer> over,
            @RequestParam Optional<String> aside,
            @RequestParam String shown,
            @RequestParam String actKey,
            Model model) {
        try {
            return "redirect:"
                    + (aside.isPresent()
                            ? take.leave(actor, id, actKey, shown)
                            : take.take(actor, id, actKey, shown, over == null ? new ArrayList<>() : over));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return show(actor, id, model);
        }
    }
}
