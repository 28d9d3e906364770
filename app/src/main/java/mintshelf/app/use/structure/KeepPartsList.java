package mintshelf.app.use.structure;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.partslist.PartsList;
import mintshelf.core.drawing.partslist.PartsListCompare;
import mintshelf.core.drawing.partslist.PartsListWrite;
import mintshelf.core.drawing.partslist.Wanted;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** The parts list of a sheet, held against the bill of materials of the model that it shows, and written from it. */
@Service
public class KeepPartsList {
    private final Sight sight;
    private final LinkStore links;
    private final Sheets sheets;
    private final ReadBom bom;
    private final RewriteReferences rewrite;
    private final Acts acts;

    public KeepPartsList(
            Sight sight, LinkStore links, Sheets sheets, ReadBom bom, RewriteReferences rewrite, Acts acts) {
        this.sight = sight;
        this.links = links;
        this.sheets = sheets;
        this.bom = bom;
        this.rewrite = rewrite;
        this.acts = acts;
    }

    /**
     * A sheet's list beside the assembly's lines.
     *
     * @param model the model that the sheet shows; nothing where it is linked to none that this person sees
     * @param compared nothing where one of the two is not there
     * @param parts documents of the assembly's lines, by find number
     * @param refusal why it is not written; nothing where this person may
     */
    public record Read(
            Seen sheet,
            Optional<ReadBom.Read> model,
            Optional<PartsListCompare> compared,
            boolean hasList,
            Map<String, Long> parts,
            Optional<Refusal> refusal) {}

    public Read read(Actor actor, long item) {
        Seen sheet = sight.of(actor, item);
        Optional<ReadBom.Read> model = shown(actor, item);
        Optional<PartsList> list = opened(sheet).map(Opened::list);
        boolean hasList = list.filter(l -> !l.block().isEmpty()).isPresent();
        if (model.isEmpty() || list.isEmpty())
            return new Read(sheet, model, Optional.empty(), hasList, Map.of(), Optional.empty());
        Map<String, Long> parts = new LinkedHashMap<>();
        Bom of = model.get().bom();
        for (BomLine line : of.lines(0)) {
            long part = of.part(line.part()).item();
            if (part > 0) parts.put(line.find(), part);
        }
        PartsListCompare compared = PartsListCompare.of(list.get(), wanted(model.get()));
        return new Read(
                sheet, model, Optional.of(compared), hasList, parts, refusal(actor, sheet, model.get(), hasList));
    }

    /** What the model that a drawing shows consists of, as this person sees it. */
    private Optional<ReadBom.Read> shown(Actor actor, long item) {
        List<Long> targets = links.shown(List.of(item)).stream()
                .filter(s -> s.item() == item)
                .map(LinkStore.Shown::target)
                .toList();
        return sight.of(actor, targets).values().stream()
                .findFirst()
                .flatMap(model ->
                        bom.of(actor, model.spine().id(), StructureView.LATEST, Optional.empty(), LocalDate.EPOCH));
    }

    /** @param millimetre how long one is on the sheet */
    private record Opened(PartsList list, double millimetre) {}

    private Optional<Opened> opened(Seen sheet) {
        Optional<DxfDrawing> drawing = sheets.opened(sheet.spine().content());
        return drawing.flatMap(d -> d.scene().toOptional().map(scene -> {
            double millimetre = Zones.of(scene).millimetre();
            return new Opened(PartsList.of(d, scene, millimetre), millimetre);
        }));
    }

    /** The lines that stand on a sheet: those of the assembly itself. */
    private static List<Wanted> wanted(ReadBom.Read read) {
        List<Wanted> wanted = new ArrayList<>();
        for (BomLine line : read.bom().lines(0)) {
            BomPart part = read.bom().part(line.part());
            String unit = line.unit().equals(BomUnits.PIECE) ? "" : " " + line.unit();
            wanted.add(new Wanted(
                    line.find(),
                    Numbers.plain(line.quantity()) + unit,
                    part.number(),
                    part.title(),
                    read.stands().get(line.part()).facts()));
        }
        return wanted;
    }

    private static Optional<Refusal> refusal(Actor actor, Seen sheet, ReadBom.Read model, boolean hasList) {
        if (!sheet.all()) return Optional.of(Refusal.of("partslist.reader", "You see what is released of it.", ""));
        if (!hasList) return Optional.of(PartsListWrite.NO_ROWS);
        if (model.bom().lines(0).isEmpty())
            return Optional.of(Refusal.of(
                    "partslist.nothing", "The model consists of nothing else.", "Check its model in first."));
        for (BomLine line : model.bom().lines(0)) {
            String lacks = model.stands().get(line.part()).lacks();
            if (!lacks.isEmpty())
                return Optional.of(Refusal.of(
                        "partslist.unknown",
                        "Line " + line.find() + ", "
                                + model.bom().part(line.part()).shown() + ": " + lacks + ".",
                        "A sheet can say it only when it is known."));
        }
        return RewriteReferences.refusal(actor, sheet);
    }

    /**
     * Writes the assembly's lines into the sheet, as its next version.
     *
     * @param version of the sheet that was looked at
     */
    public String write(Actor actor, long item, String key, int version, String why) {
        return acts.once(actor, key, () -> {
            String comment = Texts.optional("The reason", why, 500).orElseThrow(Refused::new);
            Seen sheet = sight.locked(actor, item);
            Sight.expectVersion(sheet, version);
            ReadBom.Read model = shown(actor, item).orElseThrow(NotThere::new);
            Opened opened = opened(sheet).orElseThrow(NotThere::new);
            PartsList list = opened.list();
            refusal(actor, sheet, model, !list.block().isEmpty()).ifPresent(r -> {
                throw new Refused(r);
            });
            List<Wanted> wanted = wanted(model);
            PartsListCompare compared = PartsListCompare.of(list, wanted);
            if (compared.wrong() == 0)
                throw Refused.because("partslist.same", "The sheet says it already.", "Nothing was changed.");
            String says = "wrote its parts list from the bill of materials of "
                    + model.top().document().number() + ": "
                    + Numbers.count(compared.wrong(), "line", "lines");
            Outcome<?> written = rewrite.sheet(
                    actor, sheet, bytes -> PartsListWrite.write(bytes, wanted, opened.millimetre()), says, comment);
            written.refusal().ifPresent(r -> {
                throw new Refused(r);
            });
            return "/documents/" + item + "/parts-list";
        });
    }
}
