package mintshelf.app.page.revision;

import java.io.IOException;
import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.revision.DropRevision;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.WithdrawAlong;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Revisions and versions: drop a pending one, move along the route, make an earlier version current again. */
@Controller
public class RevisionPages {
    private final DropRevision dropRevision;
    private final MoveDocument moveDocument;
    private final Reinstate reinstate;
    private final CompareSheets compare;
    private final ReadStructure structure;
    private final ReadWhereUsed used;
    private final ReadDocument read;
    private final WithdrawAlong along;

    public RevisionPages(
            DropRevision dropRevision,
            MoveDocument moveDocument,
            Reinstate reinstate,
            CompareSheets compare,
            ReadStructure structure,
            ReadWhereUsed used,
            ReadDocument read,
            WithdrawAlong along) {
        this.along = along;
        this.dropRevision = dropRevision;
        this.moveDocument = moveDocument;
        this.reinstate = reinstate;
        this.compare = compare;
        this.structure = structure;
        this.used = used;
        this.read = read;
    }

    @GetMapping("/documents/{id}/drop-revision")
    String dropPage(Actor actor, @PathVariable long id, Model model) {
        ReadDocument.View view = read.view(actor, id);
        DropRevision.dropRefusal(actor, view.seen().document()).ifPresent(r -> {
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
        return "redirect:" + dropRevision.drop(actor, id, actKey, expected, reason);
    }

    @GetMapping("/documents/{id}/moves/{move}")
    String movePage(Actor actor, @PathVariable long id, @PathVariable String move, Model model) {
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("view", view);
        ReadDocument.Offered offered = view.moves().stream()
                .filter(m -> m.move().code().equals(move))
                .findFirst()
                .orElseThrow(NotThere::new);
        if (offered.move().does(Effect.OPEN_ROUND)) return "redirect:/send-to-review?items=" + id;
        model.addAttribute("offered", offered);
        model.addAttribute("asksReason", offered.move().asksReason());
        StageClass to = view.route().stage(offered.move().to()).stageClass();
        model.addAttribute("brings", to == StageClass.RELEASED);
        model.addAttribute("withdraws", to == StageClass.WITHDRAWN);
        if (to == StageClass.WITHDRAWN) {
            model.addAttribute("used", used.of(actor, id, false));
            model.addAttribute("falls", along.of(actor, view.seen(), move));
        }
        model.addAttribute(
                "silent",
                moveDocument.silent(view.seen(), view.route(), offered.move()).orElse(null));
        return "revision/move";
    }

    @PostMapping("/documents/{id}/moves/{move}")
    String move(
            Actor actor,
            @PathVariable long id,
            @PathVariable String move,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam(defaultValue = "") String remark,
            @RequestParam(defaultValue = "") String successor,
            @RequestParam(defaultValue = "") List<Long> along) {
        return "redirect:" + moveDocument.move(actor, id, actKey, move, expected, remark, successor, along);
    }

    @GetMapping("/documents/{id}/versions/{number}/reinstate")
    String reinstatePage(Actor actor, @PathVariable long id, @PathVariable int number, Model model) throws IOException {
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
        model.addAttribute(
                "compared",
                compare.draw(view.seen().spine().content(), old.content()).orElse(null));
        model.addAttribute("components", structure.firstLevel(actor, id, number).rows());
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
