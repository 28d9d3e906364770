package mintshelf.app.page.document;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.page.Words;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.CheckSheets.Held;
import mintshelf.app.sight.DeskPlaces;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadFacts;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.family.SizeFamilies;
import mintshelf.app.use.revision.DropRevision;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.access.Right;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.next.Act;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** A document: nameplate, strip, content, facts; its peek; its record. */
@Controller
public class DocumentPage {
    private final ReadDocument read;
    private final ReadingRoom room;
    private final CompareSheets compare;
    private final ReadSheet sheets;
    private final CheckSheets checks;
    private final ReadOrders orders;
    private final Around around;
    private final DropDocument drop;
    private final TakeAlong along;

    public DocumentPage(
            ReadDocument read,
            ReadingRoom room,
            CompareSheets compare,
            ReadSheet sheets,
            CheckSheets checks,
            ReadOrders orders,
            Around around,
            DropDocument drop,
            TakeAlong along) {
        this.read = read;
        this.room = room;
        this.compare = compare;
        this.sheets = sheets;
        this.checks = checks;
        this.orders = orders;
        this.around = around;
        this.drop = drop;
        this.along = along;
    }

    @GetMapping("/documents/{id}")
    String show(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<Integer> version,
            @RequestParam(required = false) String taken,
            @RequestParam(required = false) String asked,
            @RequestParam(required = false) String reinstated,
            @RequestParam(required = false) String edit,
            @ModelAttribute("w") Words words,
            Model model) {
        ReadDocument.View view = read.open(actor, id);
        if (view.seen().spine().isOrder() || view.seen().spine().isRequest()) {
            return "redirect:" + view.seen().spine().page();
        }
        model.addAttribute("changePaper", view.seen().spine().isChangePaper());
        model.addAttribute("part", view.seen().document().part());
        model.addAttribute("isNotice", view.seen().spine().isNotice());
        List<ReadOrders.ChangeOf> changes = orders.of(actor, id);
        model.addAttribute("orders", changes);
        model.addAttribute(
                "goesOn",
                changes.stream()
                        .filter(c -> c.done().turn() == 1)
                        .map(ReadOrders.ChangeOf::order)
                        .findFirst()
                        .orElse(null));
        List<Seen> requests = orders.requests(actor, id);
        model.addAttribute("requests", requests);
        model.addAttribute(
                "deciding",
                orders.waiting(
                        actor,
                        Stream.concat(
                                        requests.stream(),
                                        changes.stream()
                                                .filter(c -> c.done().turn() == 1)
                                                .map(ReadOrders.ChangeOf::order))
                                .filter(Seen::all)
                                .map(s -> s.spine().id())
                                .toList()));
        model.addAttribute(
                "mayAsk", actor.access().may(Right.ASK, view.seen().document().place()));
        VersionRow shown = version.map(n -> view.versions().stream()
                        .filter(v -> v.number() == n)
                        .findFirst()
                        .orElseThrow(NotThere::new))
                .orElseGet(view::shownVersion);
        var document = view.seen().document();
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("path", DeskPlaces.path(view.seen()));
        model.addAttribute("sheet", sheets.sheetSoon(shown.drawn().content()));
        model.addAttribute(
                "checked",
                room.soon(() -> checks.findings(document, shown), Optional.<List<Held>>empty())
                        .map(CheckSheets::says)
                        .orElse(""));
        Strip strip = Strip.of(
                view.revisions(), view.versions(), view.typed(), document.head().number(), shown.number(), words);
        model.addAttribute("strip", strip);
        around.fillTrials(actor, view.seen(), strip, words, model);
        model.addAttribute("taken", taken != null);
        model.addAttribute("asked", asked != null);
        model.addAttribute("reinstated", reinstated != null && shown.copyOf().isPresent());
        boolean mine =
                document.holder().filter(h -> h.person() == actor.person()).isPresent();
        model.addAttribute("mine", mine);
        boolean title = KeepFacts.titleRefusal(actor, view.seen()).isEmpty();
        boolean mayEdit = !view.seen().spine().isChangePaper()
                && (title || view.facts().stream().anyMatch(ReadFacts.Line::isOpen));
        model.addAttribute("sizes", SizeFamilies.mayBe(view.seen()));
        model.addAttribute("mayTitle", title);
        model.addAttribute("mayEdit", mayEdit);
        model.addAttribute("edit", edit != null && mayEdit);
        model.addAttribute(
                "asksWhy",
                view.facts().stream()
                        .filter(ReadFacts.Line::isOpen)
                        .map(f -> f.fact().fact())
                        .filter(f -> f.use().hands().reason())
                        .map(FactDefinition::label)
                        .collect(Collectors.joining(", ")));
        model.addAttribute("mayKeep", actor.access().may(Right.KEEP_SHELF, document.place()));
        model.addAttribute("mayChange", actor.access().may(Right.CHANGE, document.place()));
        model.addAttribute(
                "reinstateRefusal",
                view.seen().all() ? Reinstate.refusal(actor, document, shown).orElse(null) : null);
        model.addAttribute(
                "dropRefusal", DropRevision.dropRefusal(actor, document).orElse(null));
        model.addAttribute(
                "mayDrop", view.seen().all() && drop.refusal(actor, view.seen()).isEmpty());
        model.addAttribute("dropped", drop.dropped(view.seen()).orElse(null));
        model.addAttribute(
                "bringBackRefusal",
                document.dropped() ? drop.bringBackRefusal(actor, view.seen()).orElse(null) : null);
        around.fillPage(actor, view.seen(), shown, model);
        model.addAttribute(
                "compared",
                view.round().isPresent()
                        ? room.soon(() -> compare.toBefore(id, shown), Optional.<Comparison>empty())
                                .orElse(null)
                        : null);
        model.addAttribute(
                "before", view.round().isPresent() ? compare.before(id, shown).orElse(null) : null);
        model.addAttribute("isModel", ModelFormat.of(shown).isPresent());
        model.addAttribute("alongChoices", !along.offered(actor, List.of(id)).isEmpty());
        model.addAttribute("startsRevision", view.next().act() == Act.START_REVISION);
        return "document/page";
    }
}
