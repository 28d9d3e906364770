package mintshelf.app.api;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Serial;
import mintshelf.core.structure.StructureView;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Bills of materials, for programs. */
@RestController
@RequestMapping("/api/v1")
class BomApi {
    private static final int MOST = 20_000;

    private final ReadBom read;

    BomApi(ReadBom read) {
        this.read = read;
    }

    /**
     * @param depth 1 for lines of the top
     * @param document nothing for what has none
     * @param quantity of the line; of a flat list what one of the top needs
     * @param mass of one of the part, kg, and its cost; nothing where they are not all known
     * @param only which products the line is part of, in words; empty for all
     */
    record BillRow(
            String find,
            int depth,
            Long document,
            String number,
            String title,
            String revision,
            Integer version,
            BigDecimal quantity,
            String unit,
            String make,
            BigDecimal mass,
            BigDecimal cost,
            boolean byHand,
            String variant,
            String only) {}

    /** @param lacking what keeps the value from being all: number or title, and why */
    record BillTotal(BigDecimal value, String unit, boolean complete, List<String> lacking) {}

    record Bill(
            long document,
            String view,
            int version,
            List<BillRow> lines,
            boolean cut,
            BillTotal mass,
            BillTotal cost) {}

    @GetMapping("/documents/{id}/bom")
    Bill bom(
            Actor actor,
            @PathVariable long id,
            @RequestParam(defaultValue = "tree") String shape,
            @RequestParam(name = "for", defaultValue = "engineering") String purpose,
            @RequestParam(name = "as", defaultValue = "latest") String view,
            @RequestParam Optional<Integer> version,
            @RequestParam Optional<LocalDate> on,
            @RequestParam Optional<String> serial,
            @RequestParam Optional<String> lot) {
        Bom.For who = Bom.For.of(purpose).orElseThrow(NotThere::new);
        if (!List.of("tree", "level", "flat").contains(shape)) throw new NotThere();
        Read found = read(actor, id, view, version, on, new ReadBom.Asked(serial(serial), lot(lot)));
        boolean[] cut = {found.cut()};
        List<BillRow> lines = lines(found, who, shape, cut);
        return new Bill(
                id,
                found.view().code(),
                found.version(),
                lines,
                cut[0],
                total(found, found.mass(), "kg"),
                total(found, found.cost(), found.currency()));
    }

    private static Optional<Serial> serial(Optional<String> asked) {
        return asked.filter(s -> !s.isBlank()).map(s -> Serial.read(s).orElseThrow(Refused::new));
    }

    private static Optional<String> lot(Optional<String> asked) {
        return asked.filter(s -> !s.isBlank())
                .map(s -> Effectivity.lot(s)
                        .orElseThrow(() -> Refused.because(
                                "bom.lot", "This is no lot.", "Write letters and digits, at most 20.")));
    }

    private Read read(
            Actor actor, long id, String view, Optional<Integer> version, Optional<LocalDate> on, ReadBom.Asked which) {
        // The design's short word for it; the pages have the long one.
        StructureView asked = StructureView.of(view.equals("saved") ? StructureView.AS_SAVED.code() : view)
                .orElseThrow(NotThere::new);
        return read.of(actor, id, asked, version, on.orElseGet(() -> LocalDate.now(ZoneOffset.UTC)), which)
                .orElseThrow(NotThere::new);
    }

    private static List<BillRow> lines(Read read, Bom.For who, String shape, boolean[] cut) {
        Bom bom = read.bom();
        RollUp mass = read.mass();
        RollUp cost = read.cost();
        List<BillRow> lines = new ArrayList<>();
        if (shape.equals("flat") || who == Bom.For.PURCHASING) {
            for (Bom.Total t : bom.flat(who)) {
                String unit = bom.part(t.place()).unit();
                lines.add(line(bom, "", 0, new BomLine("", t.place(), t.needed(), unit, false), mass, cost));
            }
            return lines;
        }
        Bom.Tree tree = bom.tree(who == Bom.For.MANUFACTURING, shape.equals("level") ? 1 : Bom.DEEPEST, MOST);
        cut[0] |= tree.cut();
        tree.rows().forEach(r -> lines.add(line(bom, r.find(), r.depth() + 1, r.line(), mass, cost)));
        return lines;
    }

    private static BillRow line(Bom bom, String find, int depth, BomLine line, RollUp mass, RollUp cost) {
        BomPart part = bom.part(line.part());
        return new BillRow(
                find,
                depth,
                part.item() > 0 ? part.item() : null,
                part.number(),
                part.title(),
                part.revision(),
                part.version() > 0 ? part.version() : null,
                line.quantity(),
                line.unit(),
                part.comes().name(),
                whole(mass, line.part()),
                whole(cost, line.part()),
                line.byHand(),
                part.variant(),
                line.when().says());
    }

    private static BigDecimal whole(RollUp sum, int place) {
        RollUp.Value value = sum.of(place);
        return value.complete() ? value.known() : null;
    }

    private static BillTotal total(Read read, RollUp sum, String unit) {
        return new BillTotal(
                sum.top().known(),
                unit,
                sum.top().complete(),
                sum.lacking().stream()
                        .map(l -> read.bom().part(l.place()).shown() + ": " + l.why())
                        .toList());
    }

    /** @param says in words what changed; empty for what is only there, or gone */
    record BillDifference(
            String what, String number, String title, List<String> says, BigDecimal mass, BigDecimal cost) {}

    record BillCompared(
            List<BillDifference> differences, BigDecimal mass, int unknownMass, BigDecimal cost, int unknownCost) {}

    /** The BOM of a document compared with another one: of the same document in another view, or of another document. */
    @GetMapping("/documents/{id}/bom/compare")
    BillCompared compare(
            Actor actor,
            @PathVariable long id,
            @RequestParam(name = "as", defaultValue = "latest") String view,
            @RequestParam Optional<Integer> version,
            @RequestParam Optional<LocalDate> on,
            @RequestParam Optional<Long> with,
            @RequestParam(name = "with-as", defaultValue = "as-released") String otherView,
            @RequestParam(name = "with-version") Optional<Integer> otherVersion,
            @RequestParam Optional<String> serial,
            @RequestParam Optional<String> lot) {
        ReadBom.Asked which = new ReadBom.Asked(serial(serial), lot(lot));
        Read now = read(actor, id, view, version, on, which);
        Read old = read(actor, with.orElse(id), otherView, otherVersion, on, which);
        BomCompare.Result result = BomCompare.of(old.bom(), now.bom());
        return new BillCompared(
                result.differences().stream()
                        .map(d -> new BillDifference(
                                d.what().name(),
                                d.part().number(),
                                d.part().title(),
                                d.says(),
                                d.mass().orElse(null),
                                d.cost().orElse(null)))
                        .toList(),
                result.mass(),
                result.unknownMass(),
                result.cost(),
                result.unknownCost());
    }
}
