package mintshelf.app.page.sheetmap;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Beside;
import mintshelf.app.page.Pages;
import mintshelf.app.page.Rows;
import mintshelf.app.store.house.SheetMapStore.Edition;
import mintshelf.app.use.sheetmap.KeepSheetMaps;
import mintshelf.app.use.sheetmap.PlanSheets;
import mintshelf.app.use.sheetmap.ReadBlocks;
import mintshelf.app.use.sheetmap.WriteSheets;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The library of sheet maps; title blocks beside their records; writing sheets. */
@Controller
public class SheetMapPages {
    private static final int BLANK_ROWS = 3;
    private static final int TEXTS = 60;
    private static final List<String> FORMATS = List.of("A4", "A3", "A2", "A1", "A0");
    private static final List<String> WRITTEN =
            List.of("number", "revision", "status", "issued", "checked_by", "checked", "approved_by", "approved");

    private final KeepSheetMaps keep;
    private final WriteSheets write;
    private final PlanSheets plans;
    private final ReadBlocks blocks;

    public SheetMapPages(KeepSheetMaps keep, WriteSheets write, PlanSheets plans, ReadBlocks blocks) {
        this.keep = keep;
        this.write = write;
        this.plans = plans;
        this.blocks = blocks;
    }

    @GetMapping("/sheet-maps")
    String all(Actor actor, Model model) {
        model.addAttribute("maps", keep.all(actor));
        return "sheetmap/list";
    }

    /** A row of the form. */
    public record FieldRow(String tag, String spot, String fact, boolean written) {}

    @GetMapping("/sheet-maps/new")
    String blank(Actor actor, Model model) {
        keep.all(actor);
        SheetMap ready = SheetMap.readyMade();
        form(model, new SheetMap("", "", "", ready.fields(), ready.revisions()), true, Optional.empty());
        return "sheetmap/edit";
    }

    @GetMapping("/sheet-maps/{id}")
    String edit(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String on,
            @RequestParam Optional<Integer> beside,
            Model model) {
        List<Edition> editions = keep.editions(actor, id);
        Edition edition = editions.get(0);
        // An earlier one is looked at beside the one in force, which alone can be changed.
        if (edition.id() != id) {
            return "redirect:/sheet-maps/" + edition.id() + "?beside="
                    + keep.map(actor, id).edition();
        }
        model.addAttribute("mapId", id);
        Beside.fill(model, editions, Edition::note, KeepSheetMaps::between, beside);
        form(model, edition.map(), edition.inUse(), Optional.of(edition));
        model.addAttribute("on", on);
        if (!on.isBlank()) {
            model.addAttribute(
                    "tried", keep.tried(actor, edition.map(), on, TEXTS).orElse(null));
        }
        return "sheetmap/edit";
    }

    private static void form(Model model, SheetMap map, boolean inUse, Optional<Edition> edition) {
        List<FieldRow> rows = new ArrayList<>();
        for (SheetMap.Field f : map.fields()) {
            rows.add(new FieldRow(
                    f.tag(), f.spot().map(SheetMapForm::shown).orElse(""), f.fact(), f.way() == SheetMap.Way.WRITTEN));
        }
        RevisionBlock revisions = map.revisions().orElseGet(RevisionBlock::readyMade);
        List<RevisionBlock.Column> columns = new ArrayList<>(revisions.columns());
        for (int i = 0; i < BLANK_ROWS; i++) rows.add(new FieldRow("", "", "", false));
        columns.add(new RevisionBlock.Column("", "", "", 20));
        model.addAttribute("map", map);
        model.addAttribute("edition", edition.map(Edition::note).orElse(null));
        model.addAttribute("inUse", inUse);
        model.addAttribute("rows", rows);
        model.addAttribute("revisions", revisions);
        model.addAttribute("columns", columns);
        model.addAttribute("formats", FORMATS);
        model.addAttribute("written", WRITTEN);
        model.addAttribute("rowFacts", RevisionBlock.FACTS);
    }

    @PostMapping("/sheet-maps")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "0") int edition,
            @RequestParam(defaultValue = "") String why,
            @RequestParam Map<String, String> form) {
        return "redirect:" + keep.keep(actor, actKey, SheetMapForm.read(form), form.containsKey("inuse"), edition, why);
    }

    @PostMapping("/sheet-maps/{id}/set-back")
    String setBack(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam int number,
            @RequestParam int edition) {
        return "redirect:" + keep.setBack(actor, actKey, id, number, edition);
    }

    /** Record and sheet side by side. */
    @GetMapping("/documents/{id}/title-block")
    String block(Actor actor, @PathVariable long id, Model model) {
        ReadBlocks.Block block = blocks.block(actor, id);
        if (!block.drawing()) throw new NotThere();
        model.addAttribute("block", block);
        model.addAttribute("mayPlace", block.refusal().isEmpty() && ReadBlocks.couldPlace(block));
        return "sheetmap/block";
    }

    @GetMapping("/write-sheets")
    String plan(
            Actor actor,
            @RequestParam String items,
            @RequestParam Optional<Long> map,
            @RequestParam(defaultValue = "false") boolean place,
            Model model) {
        List<WriteSheets.Row> rows = plans.plan(actor, Pages.ids(items), new WriteSheets.How(map, place));
        if (rows.isEmpty()) throw new NotThere();
        List<WriteSheets.Row> opening =
                rows.stream().filter(WriteSheets.Row::opens).toList();
        model.addAttribute("rows", rows);
        model.addAttribute("opening", opening.size());
        model.addAttribute(
                "openingIds",
                Rows.joined(opening.stream().map(WriteSheets.Row::seen).toList()));
        model.addAttribute("items", items);
        model.addAttribute("maps", write.maps());
        model.addAttribute("chosen", map.orElse(null));
        model.addAttribute("place", place);
        return "sheetmap/write";
    }

    @GetMapping("/documents/{id}/written")
    String preview(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<Long> map,
            @RequestParam(defaultValue = "false") boolean place,
            Model model) {
        WriteSheets.How how = new WriteSheets.How(map, place);
        model.addAttribute("compared", write.preview(actor, id, how).orElseThrow(NotThere::new));
        model.addAttribute("row", plans.plan(actor, List.of(id), how).get(0));
        model.addAttribute("chosen", map.orElse(null));
        model.addAttribute("place", place);
        return "sheetmap/written";
    }

    @PostMapping("/write-sheets")
    String write(
            Actor actor,
            @RequestParam String items,
            @RequestParam Optional<Long> map,
            @RequestParam(defaultValue = "false") boolean place,
            @RequestParam String actKey) {
        return "redirect:" + write.write(actor, Pages.ids(items), new WriteSheets.How(map, place), actKey);
    }
}
