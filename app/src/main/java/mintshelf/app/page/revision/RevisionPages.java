package mintshelf.app.page.revision;

import java.util.List;
import java.util.Optional;
import mintshelf.app.page.Pages;
import mintshelf.app.use.Actor;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Refused;
import mintshelf.app.use.Seen;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.revision.Revisions;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.base.Refusal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Revisions and versions: start the next, drop a pending one, move along the route, reinstate. */
@Controller
public class RevisionPages {
    private final Revisions revisions;
    private final Reinstate reinstate;
    private final ReadDocument read;
    private final CheckOut checkOut;

    public RevisionPages(Revisions revisions, Reinstate reinstate, ReadDocument read, CheckOut checkOut) {
        this.revisions = revisions;
        this.reinstate = reinstate;
        this.read = read;
        this.checkOut = checkOut;
    }

    /** A row of the plan: the label that a document gets, or why none. */
    public record Row(Seen seen, Optional<String> label, Optional<Refusal> refusal) {}

    @GetMapping("/start-revision")
    String plan(Actor actor, @RequestParam String items, Model model) {
        List<Row> rows = checkOut.plan(actor, Pages.ids(items)).stream()
                .map(r -> row(actor, r.seen()))
                .toList();
        if (rows.isEmpty()) throw new NotThere();
        model.addAttribute("rows", rows);
        List<Seen> opening =
                rows.stream().filter(r -> r.refusal().isEmpty()).map(Row::seen).toList();
        model.addAttribute("opening", opening.size());
        model.addAttribute("openingIds", mintshelf.app.page.Rows.joined(opening));
        return "revision/start";
    }

    private Row row(Actor actor, Seen seen) {
        Optional<Refusal> refusal = Revisions.startRefusal(actor, seen.document());
        if (refusal.isPresent()) return new Row(seen, Optional.empty(), refusal);
        try {
            return new Row(seen, Optional.of(revisions.nextLabel(seen.document())), Optional.empty());
        } catch (Refused e) {
            return new Row(seen, Optional.empty(), Optional.of(e.refusal()));
        }
    }

    @PostMapping("/start-revision")
    String start(
            Actor actor,
            @RequestParam String items,
            @RequestParam String actKey,
            @RequestParam String reason,
            @RequestParam(defaultValue = "") String details,
            @RequestParam(name = "checkout", defaultValue = "false") boolean thenCheckOut) {
        return "redirect:" + revisions.start(actor, Pages.ids(items), actKey, reason, details, thenCheckOut);
    }

    @GetMapping("/documents/{id}/drop-revision")
    String dropPage(Actor actor, @PathVariable long id, Model model) {
        ReadDocument.View view = read.view(actor, id);
        Revisions.dropRefusal(actor, view.seen().document()).ifPresent(r -> {
            throw new Refused(r);
        });
        model.addAttribute("view", view);
        return "revision/drop";
    }

    @PostMapping("/documents/{id}/drop-revision")
    String drop(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam String reason) {
        return "redirect:" + revisions.drop(actor, id, actKey, expected, reason);
    }

    @GetMapping("/documents/{id}/moves/{move}")
    String movePage(Actor actor, @PathVariable long id, @PathVariable String move, Model model) {
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("view", view);
        ReadDocument.Offered offered = view.moves().stream()
                .filter(m -> m.move().code().equals(move))
                .findFirst()
                .orElseThrow(NotThere::new);
        if (offered.move().does(mintshelf.core.route.Effect.OPEN_ROUND)) return "redirect:/send-to-review?items=" + id;
        model.addAttribute("offered", offered);
        model.addAttribute("asksReason", mintshelf.core.route.MoveRules.asksReason(view.route(), offered.move()));
        return "revision/move";
    }

    @PostMapping("/documents/{id}/moves/{move}")
    String move(
            Actor actor,
            @PathVariable long id,
            @PathVariable String move,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam(defaultValue = "") String remark) {
        return "redirect:" + revisions.move(actor, id, actKey, move, expected, remark);
    }

    @GetMapping("/documents/{id}/versions/{number}/reinstate")
    String reinstatePage(Actor actor, @PathVariable long id, @PathVariable int number, Model model)
            throws java.io.IOException {
        ReadDocument.View view = read.view(actor, id);
        if (!view.seen().all()) throw new NotThere();
        var old = view.versions().stream()
                .filter(v -> v.number() == number)
                .findFirst()
                .orElseThrow(NotThere::new);
        Reinstate.refusal(actor, view.seen().document(), old).ifPresent(r -> {
            throw new Refused(r);
        });
        model.addAttribute("view", view);
        model.addAttribute("old", old);
        model.addAttribute(
                "between",
                view.versions().stream().filter(v -> v.number() > number).toList());
        return "revision/reinstate";
    }

    @PostMapping("/documents/{id}/versions/{number}/reinstate")
    String reinstate(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam(defaultValue = "") String comment) {
        return "redirect:" + reinstate.reinstate(actor, id, actKey, number, expected, comment);
    }
}
