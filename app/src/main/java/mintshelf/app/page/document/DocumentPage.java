package mintshelf.app.page.document;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Words;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.CheckSheets.Held;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.app.use.check.WaiveFindings;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.Sheet;
import mintshelf.app.use.person.People;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.Revisions;
import mintshelf.app.use.structure.ReadModel;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.next.Act;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A document: nameplate, strip, content, facts; its peek; its record. */
@Controller
public class DocumentPage {
    private final ReadDocument read;
    private final ReadingRoom room;
    private final CompareSheets compare;
    private final ReadSheet sheets;
    private final CheckSheets checks;
    private final WaiveFindings waive;
    private final ReadOrders orders;
    private final KeepFacts keep;
    private final DropDocument drop;
    private final ReadRecord record;
    private final People people;
    private final TakeAlong along;
    private final ReadStructure structure;
    private final ReadWhereUsed used;

    public DocumentPage(
            ReadDocument read,
            ReadingRoom room,
            CompareSheets compare,
            ReadSheet sheets,
            CheckSheets checks,
            WaiveFindings waive,
            ReadOrders orders,
            KeepFacts keep,
            DropDocument drop,
            ReadRecord record,
            People people,
            TakeAlong along,
            ReadStructure structure,
            ReadWhereUsed used) {
        this.read = read;
        this.room = room;
        this.compare = compare;
        this.sheets = sheets;
        this.checks = checks;
        this.waive = waive;
        this.orders = orders;
        this.keep = keep;
        this.drop = drop;
        this.record = record;
        this.people = people;
        this.along = along;
        this.structure = structure;
        this.used = used;
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
        if (view.seen().spine().isOrder()) return "redirect:/orders/" + id;
        model.addAttribute("changePaper", view.seen().spine().isChangePaper());
        model.addAttribute("isNotice", view.seen().spine().isNotice());
        model.addAttribute("orders", orders.of(actor, id));
        VersionRow shown = version.map(n -> view.versions().stream()
                        .filter(v -> v.number() == n)
                        .findFirst()
                        .orElseThrow(NotThere::new))
                .orElseGet(view::shownVersion);
        var document = view.seen().document();
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("path", Desks.path(view.seen()));
        model.addAttribute("sheet", sheets.sheetSoon(view.seen().spine(), shown.content()));
        model.addAttribute(
                "checked",
                room.soon(() -> checks.findings(document, shown), Optional.<List<Held>>empty())
                        .map(CheckSheets::says)
                        .orElse(""));
        model.addAttribute(
                "strip",
                Strip.of(view.revisions(), view.versions(), document.head().number(), shown.number(), words));
        model.addAttribute("taken", taken != null);
        model.addAttribute("asked", asked != null);
        model.addAttribute("reinstated", reinstated != null && shown.copyOf().isPresent());
        boolean mine =
                document.holder().filter(h -> h.person() == actor.person()).isPresent();
        model.addAttribute("mine", mine);
        model.addAttribute("mayEdit", mayEdit(actor, view, mine));
        model.addAttribute("edit", edit != null && mayEdit(actor, view, mine));
        model.addAttribute("mayKeep", actor.access().may(Right.KEEP_SHELF, document.place()));
        model.addAttribute("mayChange", actor.access().may(Right.CHANGE, document.place()));
        model.addAttribute(
                "reinstateRefusal",
                view.seen().all() ? Reinstate.refusal(actor, document, shown).orElse(null) : null);
        model.addAttribute("dropRefusal", Revisions.dropRefusal(actor, document).orElse(null));
        model.addAttribute(
                "mayDrop", view.seen().all() && drop.refusal(actor, view.seen()).isEmpty());
        model.addAttribute("dropped", drop.dropped(view.seen()).orElse(null));
        model.addAttribute(
                "bringBackRefusal",
                document.dropped() ? drop.bringBackRefusal(actor, view.seen()).orElse(null) : null);
        ReadWhereUsed.Used around = used.of(actor, id, false);
        ReadStructure.Structure own = structure.firstLevel(actor, id);
        // A drawing that refers to nothing itself shows what the model consists of that it is of.
        Optional<Seen> shows = own.rows().isEmpty() ? around.shows() : Optional.empty();
        ReadStructure.Structure consists =
                shows.map(s -> structure.firstLevel(actor, s.spine().id())).orElse(own);
        model.addAttribute("structure", consists);
        model.addAttribute("structureOf", consists.top());
        model.addAttribute("standing", consists.standing());
        model.addAttribute("used", around);
        model.addAttribute(
                "compared",
                view.round().isPresent()
                        ? room.soon(() -> compare.toBefore(id, shown), Optional.<Comparison>empty())
                                .orElse(null)
                        : null);
        model.addAttribute(
                "before", view.round().isPresent() ? compare.before(id, shown).orElse(null) : null);
        model.addAttribute("isModel", ReadModel.format(shown).isPresent());
        model.addAttribute("alongChoices", !along.offered(actor, List.of(id)).isEmpty());
        model.addAttribute("startsRevision", view.next().act() == Act.START_REVISION);
        return "document/page";
    }

    private static boolean mayEdit(Actor actor, ReadDocument.View view, boolean mine) {
        var document = view.seen().document();
        return view.seen().all()
                && actor.access().may(Right.CHANGE, document.place())
                && document.pending().isPresent()
                && (document.holder().isEmpty() || mine);
    }

    /** The sheet of a version, as a part of a page that did not wait for it. */
    @GetMapping("/documents/{id}/versions/{number}/drawn")
    String drawn(Actor actor, @PathVariable long id, @PathVariable int number, Model model) {
        VersionRow version = read.version(actor, id, number);
        ReadDocument.View view = read.view(actor, id);
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("isModel", ReadModel.format(version).isPresent());
        try {
            model.addAttribute("sheet", sheets.sheet(view.seen().spine(), version.content()));
        } catch (Refused e) {
            model.addAttribute("sheet", sheets.sheetSoon(view.seen().spine(), version.content()));
        }
        return "document/_drawn";
    }

    private static final Refusal FORMER =
            Refusal.of("waiver.former", "This is a former version.", "Findings are let pass for the latest one.");

    /** What the rules say of a version's sheet. */
    @GetMapping("/documents/{id}/versions/{number}/checks")
    String checks(Actor actor, @PathVariable long id, @PathVariable int number, Model model) {
        VersionRow version = read.version(actor, id, number);
        ReadDocument.View view = read.view(actor, id);
        List<Held> findings = checks.findings(view.seen().document(), version).orElseThrow(NotThere::new);
        List<Finding> bare = findings.stream().map(Held::finding).toList();
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("findings", findings);
        model.addAttribute("says", CheckSheets.says(findings));
        model.addAttribute("keys", bare.stream().map(CheckSheets::key).toList());
        model.addAttribute(
                "inTheWay", findings.stream().filter(Held::isInTheWay).count());
        boolean latest = number == view.seen().document().head().number();
        model.addAttribute(
                "waiverRefusal",
                latest ? waive.refusal(actor, view.seen().document()).orElse(null) : FORMER);
        model.addAttribute("svg", sheets.marked(version.content(), bare).orElse(""));
        return "document/checks";
    }

    /** The sheet of a version, filling the window; {@code look} begins at a finding of its checks. */
    @GetMapping("/documents/{id}/versions/{number}/sheet")
    String sheet(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam Optional<Integer> look,
            @RequestParam Optional<String> layout,
            Model model) {
        VersionRow version = read.version(actor, id, number);
        Sheet sheet = sheets.layout(version.content(), layout);
        if (!sheet.face().equals("DRAWING") && layout.isEmpty()) throw new NotThere();
        ReadDocument.View view = read.view(actor, id);
        look.flatMap(n -> checks.findings(view.seen().document(), version)
                        .filter(found -> n > 0 && n <= found.size())
                        .map(found -> found.get(n - 1).finding().box()))
                .filter(box -> !box.isEmpty())
                .ifPresent(box -> model.addAttribute(
                        "look", box.minX() + " " + box.minY() + " " + box.maxX() + " " + box.maxY()));
        model.addAttribute("view", view);
        model.addAttribute("shown", version);
        model.addAttribute("sheet", sheet);
        return "document/sheet";
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
        model.addAttribute("isModel", ReadModel.format(shown).isPresent());
        if (face.equals("look"))
            model.addAttribute("sheet", sheets.sheetSoon(view.seen().spine(), shown.content()));
        if (face.equals("changed")) {
            Optional<VersionRow> before = compare.before(id, shown)
                    .filter(b -> view.versions().stream().anyMatch(v -> v.number() == b.number()));
            model.addAttribute("before", before.orElse(null));
            model.addAttribute(
                    "compared",
                    before.flatMap(b -> room.soon(
                                    () -> compare.compare(b.content(), shown.content()), Optional.<Comparison>empty()))
                            .orElse(null));
        }
        if (face.equals("around")) {
            model.addAttribute("structure", structure.firstLevel(actor, id));
            model.addAttribute("used", used.of(actor, id, false));
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
        return "document/who";
    }

    @PostMapping("/documents/{id}/facts")
    String facts(Actor actor, @PathVariable long id, @RequestParam Map<String, String> form) {
        Map<String, String> typed = new TreeMap<>();
        Map<String, String> was = new TreeMap<>();
        form.forEach((name, value) -> {
            if (name.startsWith("fact.")) typed.put(name.substring(5), value);
            if (name.startsWith("was.")) was.put(name.substring(4), value);
        });
        return "redirect:"
                + keep.keep(actor, id, form.getOrDefault("actKey", ""), form.getOrDefault("title", ""), typed, was);
    }

    @PostMapping("/documents/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam String why) {
        return "redirect:" + drop.drop(actor, id, actKey, why);
    }

    @PostMapping("/documents/{id}/bring-back")
    String bringBack(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + drop.bringBack(actor, id, actKey);
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
