package mintshelf.app.page.document;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.page.Words;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.person.ReadPeople;
import mintshelf.app.use.person.ReadReach;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.core.access.Right;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.route.RouteMap;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** What stands beside a document: its peek, who can do what, its record. */
@Controller
public class DocumentPanels {
    private final ReadDocument read;
    private final ReadingRoom room;
    private final CompareSheets compare;
    private final ReadSheet sheets;
    private final Around around;
    private final ReadPeople people;
    private final ReadReach reach;
    private final ReadRecord record;

    public DocumentPanels(
            ReadDocument read,
            ReadingRoom room,
            CompareSheets compare,
            ReadSheet sheets,
            Around around,
            ReadPeople people,
            ReadReach reach,
            ReadRecord record) {
        this.read = read;
        this.room = room;
        this.compare = compare;
        this.sheets = sheets;
        this.around = around;
        this.people = people;
        this.reach = reach;
        this.record = record;
    }

    /** The panel beside a list: one face of the document. */
    @GetMapping("/documents/{id}/peek")
    String peek(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "look") String face,
            @ModelAttribute("w") Words words,
            Model model) {
        if (!List.of("look", "changed", "around", "facts").contains(face)) throw new NotThere();
        ReadDocument.View view = read.view(actor, id);
        VersionRow shown = view.shownVersion();
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("face", face);
        model.addAttribute("isModel", ModelFormat.of(shown).isPresent());
        if (face.equals("look")) {
            model.addAttribute("sheet", sheets.sheetSoon(shown.drawn().content()));
            around.fillMargin(actor, view.seen(), shown, model);
            if (view.seen().document().part()) around.fillCard(actor, view.seen(), model);
        }
        if (face.equals("changed")) {
            Optional<VersionRow> before = compare.before(id, shown)
                    .filter(b -> view.versions().stream().anyMatch(v -> v.number() == b.number()));
            model.addAttribute("before", before.orElse(null));
            model.addAttribute(
                    "compared",
                    before.flatMap(b -> room.soon(
                                    () -> compare.compare(
                                            b.drawn().content(), shown.drawn().content()),
                                    Optional.<Comparison>empty()))
                            .orElse(null));
        }
        if (face.equals("around")) {
            around.fill(actor, id, model);
        }
        return "document/_peek :: peek";
    }

    /** Who can do what here, and through which grant. */
    @GetMapping("/documents/{id}/who")
    String who(Actor actor, @PathVariable long id, Model model) {
        ReadDocument.View view = read.view(actor, id);
        Map<Right, List<?>> through = new TreeMap<>();
        for (Right right : Right.values()) {
            var grants = people.through(actor, right, view.seen().document().place());
            if (!grants.isEmpty()) through.put(right, grants);
        }
        model.addAttribute("view", view);
        model.addAttribute("through", through);
        model.addAttribute("names", reach.ofDocument(actor, id));
        return "document/who";
    }

    /** Where it stands on its route, as its map. */
    @GetMapping("/documents/{id}/route")
    String route(Actor actor, @PathVariable long id, Model model) {
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("route", view.route());
        model.addAttribute("map", RouteMap.of(view.route()));
        model.addAttribute("at", view.seen().current().stage().code());
        return "document/_route :: route";
    }

    @GetMapping("/documents/{id}/record")
    String record(Actor actor, @PathVariable long id, @RequestParam Optional<Integer> before, Model model) {
        var entries = record.ofDocument(actor, id, before.orElse(Integer.MAX_VALUE), 61);
        model.addAttribute("view", read.view(actor, id));
        model.addAttribute("entries", entries.size() > 60 ? entries.subList(0, 60) : entries);
        model.addAttribute("next", entries.size() > 60 ? entries.get(59).entry().seq() : null);
        return "document/record";
    }
}
