package mintshelf.app.page.structure;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import mintshelf.app.use.columns.BomColumns;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.core.base.Numbers;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.bom.RollUp;

/** Rows of a BOM as a table has them. */
final class BomTable {
    /** Rows of a table: a workbook of more would not fit beside other work. */
    static final int MOST = 20_000;

    private BomTable() {}

    /**
     * A head and the rows.
     *
     * @param extra columns that somebody chose, behind the others
     */
    static List<List<String>> rows(
            Read read, Bom.For who, BomView.Shape shape, int pieces, List<BomColumns.Column> extra) {
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of(
                "find",
                "level",
                "number",
                "title",
                "revision",
                "version",
                "quantity",
                "unit",
                "comes",
                "mass of one, kg",
                "cost of one" + (read.currency().isEmpty() ? "" : ", " + read.currency()),
                "needed for " + pieces,
                "lead time",
                "supplier",
                "supplier's number",
                "only",
                "variant"));
        extra.forEach(e -> head.add(e.label()));
        rows.add(head);
        Bom bom = read.bom();
        RollUp mass = read.mass();
        RollUp cost = read.cost();
        if (shape == BomView.Shape.FLAT) {
            for (Bom.Total t : bom.flat(who)) {
                Optional<BigDecimal> needed =
                        t.whole() ? Optional.of(t.needed().multiply(BigDecimal.valueOf(pieces))) : Optional.empty();
                String unit = bom.part(t.place()).unit();
                rows.add(row(read, "", 0, t.place(), t.needed(), unit, needed, mass, cost, "", extra));
            }
            return rows;
        }
        int deepest = shape == BomView.Shape.LEVEL ? 1 : Bom.DEEPEST;
        Bom.Tree tree = bom.tree(who == Bom.For.MANUFACTURING, deepest, MOST);
        for (Bom.Row r : tree.rows()) {
            BomLine line = r.line();
            rows.add(row(
                    read,
                    r.find(),
                    r.depth() + 1,
                    line.part(),
                    line.quantity(),
                    line.unit(),
                    r.needed(),
                    mass,
                    cost,
                    line.when().says(),
                    extra));
        }
        if (tree.cut() || read.cut())
            rows.add(IntStream.range(0, head.size())
                    .mapToObj(c -> c == 3 ? "There is more below; the table ends here." : "")
                    .toList());
        return rows;
    }

    /** Mass and cost are of one unit of the part, rolled up; empty where they are not all known. */
    private static List<String> row(
            Read read,
            String find,
            int depth,
            int place,
            BigDecimal quantity,
            String unit,
            Optional<BigDecimal> needed,
            RollUp mass,
            RollUp cost,
            String only,
            List<BomColumns.Column> extra) {
        BomPart part = read.bom().part(place);
        Map<String, String> facts = read.stands().get(place).facts();
        List<String> row = new ArrayList<>(List.of(
                find,
                depth == 0 ? "" : String.valueOf(depth),
                part.number(),
                part.title(),
                part.revision(),
                part.version() == 0 ? "" : String.valueOf(part.version()),
                Numbers.plain(quantity),
                unit,
                part.comes().word(),
                whole(mass, place),
                whole(cost, place),
                needed.map(n -> Numbers.plain(n) + " " + part.unit()).orElse(""),
                facts.getOrDefault(PartFacts.LEAD_TIME, ""),
                facts.getOrDefault(PartFacts.SUPPLIER, ""),
                facts.getOrDefault(PartFacts.SUPPLIER_NUMBER, ""),
                only,
                part.variant()));
        extra.forEach(e -> row.add(facts.getOrDefault(e.name(), "")));
        return row;
    }

    private static String whole(RollUp sum, int place) {
        RollUp.Value value = sum.of(place);
        return value.complete() ? Numbers.plain(value.known()) : "";
    }
}
