package mintshelf.app.page.structure;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.app.use.structure.ReadBom.Stands;
import mintshelf.core.base.Numbers;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.bom.BomCompare.Difference;
import mintshelf.core.bom.BomCompare.What;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Worth;

/**
 * A BOM as a page and a table show it.
 *
 * @param pieces of the top, for which a flat list and the sums are
 * @param from number of the first row that is shown, from 0
 * @param all how many rows there are
 */
public record BomView(
        Read read,
        Bom.For who,
        Shape shape,
        int pieces,
        List<Row> rows,
        int from,
        int all,
        boolean cut,
        Sum mass,
        Sum cost) {
    /** Pieces of the top that are asked for at once. */
    static final int MOST_PIECES = 1_000_000;

    /** Rows of a tree that are looked at, and of a page. */
    static final int MOST_TREE = 20_000;

    /** Rows that a page begins with; more come as somebody gets to them. */
    static final int FIRST = 40;

    static final int PORTION = 200;

    private static int portion(int from) {
        return from == 0 ? FIRST : PORTION;
    }

    /** Lines of other products that a page names. */
    public List<ReadBom.Left> others() {
        return read.left().subList(0, Math.min(50, read.left().size()));
    }

    /** Number of the first row that comes next; 0 where these are the last. */
    public int next() {
        int next = from + rows.size();
        return rows.isEmpty() || next >= all ? 0 : next;
    }

    /** How rows are put. */
    enum Shape {
        TREE("tree"),
        LEVEL("one level"),
        FLAT("flat");

        private final String words;

        Shape(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * A row.
     *
     * @param quantity as the line says; of a flat list what one of the top needs
     * @param mass of all of them, with its unit; empty where none of it is known
     * @param at where its share of the whole begins, in percent, and how wide it is
     * @param difference to what it is compared with
     * @param gone whether only the other one has it
     */
    public record Row(
            int depth,
            String find,
            BomPart part,
            Stands stands,
            String quantity,
            Amount mass,
            Amount cost,
            double at,
            double wide,
            Optional<Difference> difference,
            boolean byHand,
            boolean gone,
            boolean ring,
            Effectivity when) {
        /** What purchasing asks of it, by the name of the fact; empty where nobody said it. */
        public String fact(String name) {
            return stands.facts().getOrDefault(name, "");
        }

        /** A line of the top, which can be written otherwise. */
        public boolean isOfTop() {
            return depth == 0 && !gone && !find.contains("/");
        }
    }

    /**
     * @param text empty where nothing of it is known
     * @param whole whether that is all of it
     * @param said why it is not what the lines sum to; empty where it is
     */
    public record Amount(String text, boolean whole, String said) {
        static final Amount NONE = new Amount("", false, "");
    }

    /**
     * @param lacking what keeps it from being complete: the part, and why
     * @param ofLines what the lines sum to, where somebody says something else; empty where nobody does
     */
    public record Sum(Amount amount, List<String[]> lacking, String ofLines) {
        /** Those that a page names. */
        public List<String[]> some() {
            return lacking.subList(0, Math.min(50, lacking.size()));
        }
    }

    static BomView of(Read read, Bom.For who, Shape shape, int pieces, int from, Optional<BomCompare.Result> compared) {
        return new Making(read, pieces, compared).view(who, shape, from);
    }

    /** "4.82 kg", with four significant places, to the milligram at the finest. */
    static String kilograms(BigDecimal mass) {
        BigDecimal rounded = mass.round(new MathContext(4, RoundingMode.HALF_UP));
        if (rounded.scale() > 6) rounded = rounded.setScale(6, RoundingMode.HALF_UP);
        return Numbers.plain(rounded) + " kg";
    }

    static String money(BigDecimal cost, String currency) {
        BigDecimal rounded = cost.setScale(2, RoundingMode.HALF_UP);
        return String.format(Locale.ENGLISH, "%,.2f", rounded) + (currency.isEmpty() ? "" : " " + currency);
    }

    /** With its sign: "+ 0.06 kg". */
    public static String signed(BigDecimal change, String text) {
        return change.signum() < 0 ? "− " + text : change.signum() > 0 ? "+ " + text : text;
    }

    private static final class Making {
        private final BigDecimal pieces;
        private final Read read;
        private final Bom bom;
        private final RollUp mass;
        private final RollUp cost;
        private final Map<String, Difference> differences = new HashMap<>();

        Making(Read read, int pieces, Optional<BomCompare.Result> compared) {
            this.pieces = BigDecimal.valueOf(pieces);
            this.read = read;
            this.bom = read.bom();
            this.mass = read.mass();
            this.cost = read.cost();
            compared.ifPresent(c -> c.differences().forEach(d -> differences.put(d.line(), d)));
        }

        BomView view(Bom.For who, Shape shape, int from) {
            Sum masses = sum(mass);
            Sum costs = sum(cost);
            if (shape == Shape.FLAT) {
                List<Bom.Total> totals = bom.flat(who);
                List<Row> rows = totals.stream()
                        .skip(from)
                        .limit(portion(from))
                        .map(this::row)
                        .toList();
                return new BomView(
                        read, who, shape, pieces.intValue(), rows, from, totals.size(), read.cut(), masses, costs);
            }
            boolean dissolved = who == Bom.For.MANUFACTURING;
            Bom.Tree tree = bom.tree(dissolved, shape == Shape.LEVEL ? 1 : Bom.DEEPEST, MOST_TREE);
            List<Spot> rows = spots(tree);
            gone(rows);
            List<Row> page = rows.stream()
                    .skip(from)
                    .limit(portion(from))
                    .map(s -> s.row().get())
                    .toList();
            return new BomView(
                    read,
                    who,
                    shape,
                    pieces.intValue(),
                    page,
                    from,
                    rows.size(),
                    tree.cut() || read.cut(),
                    masses,
                    costs);
        }

        private Sum sum(RollUp sum) {
            RollUp.Value top = sum.top();
            String said = said(sum, 0);
            return new Sum(
                    new Amount(written(sum, top.known().multiply(pieces)), top.complete(), said),
                    lacking(sum),
                    said.isEmpty() ? "" : written(sum, sum.ofLines(0).multiply(pieces)));
        }

        private String written(RollUp sum, BigDecimal value) {
            return sum == mass ? kilograms(value) : money(value, read.currency());
        }

        /** Why somebody says another value of a part than its lines. */
        private String said(RollUp sum, int place) {
            Worth worth = sum == mass ? bom.part(place).mass() : bom.part(place).cost();
            return worth.instead().map(Worth.Instead::why).orElse("");
        }

        private List<String[]> lacking(RollUp sum) {
            return sum.lacking().stream()
                    .map(l -> new String[] {bom.part(l.place()).shown(), l.why()})
                    .toList();
        }

        private Row row(Bom.Total total) {
            BomPart part = bom.part(total.place());
            BigDecimal all = total.needed().multiply(pieces);
            String needed = amount(all) + " " + part.unit() + (total.whole() ? "" : " at least");
            return new Row(
                    0,
                    "",
                    part,
                    read.stands().get(total.place()),
                    needed,
                    all(mass, total.place(), Optional.of(all), total.whole()),
                    all(cost, total.place(), Optional.of(all), total.whole()),
                    0,
                    share(total.place(), Optional.of(total.needed())),
                    Optional.empty(),
                    false,
                    false,
                    false,
                    Effectivity.ALWAYS);
        }

        private static String amount(BigDecimal quantity) {
            String plain = Numbers.plain(quantity);
            return plain.isEmpty() ? quantity.round(new MathContext(3)).toString() : plain;
        }

        private Amount all(RollUp sum, int place, Optional<BigDecimal> needed, boolean whole) {
            RollUp.Value one = sum.of(place);
            if (needed.isEmpty() || (!one.complete() && one.known().signum() == 0)) return Amount.NONE;
            BigDecimal value = one.known().multiply(needed.get(), MathContext.DECIMAL128);
            return new Amount(written(sum, value), one.complete() && whole, said(sum, place));
        }

        /** Percent of what the whole weighs, as far as it is known. */
        private double share(int place, Optional<BigDecimal> needed) {
            BigDecimal whole = mass.top().known();
            if (whole.signum() == 0 || needed.isEmpty()) return 0;
            return mass.of(place)
                    .known()
                    .multiply(needed.get(), MathContext.DECIMAL64)
                    .multiply(BigDecimal.valueOf(100))
                    .divide(whole, MathContext.DECIMAL64)
                    .doubleValue();
        }

        /** Where a row stands; only those of a page are written out. */
        private record Spot(int depth, String find, long item, boolean gone, Supplier<Row> row) {}

        private List<Spot> spots(Bom.Tree tree) {
            List<Spot> spots = new ArrayList<>();
            List<Double> next = new ArrayList<>();
            for (Bom.Row r : tree.rows()) {
                while (next.size() <= r.depth() + 1) next.add(0.0);
                double wide = share(r.line().part(), r.needed());
                double at = next.get(r.depth());
                next.set(r.depth(), at + wide);
                // What is below it begins where it begins.
                next.set(r.depth() + 1, at);
                long item = bom.part(r.line().part()).item();
                spots.add(new Spot(r.depth(), r.find(), item, false, () -> row(r, at, wide)));
            }
            return spots;
        }

        private Row row(Bom.Row r, double at, double wide) {
            int place = r.line().part();
            BomPart part = bom.part(place);
            return new Row(
                    r.depth(),
                    r.find(),
                    part,
                    read.stands().get(place),
                    amount(r.line().quantity()) + " " + r.line().unit(),
                    all(mass, place, r.needed(), true),
                    all(cost, place, r.needed(), true),
                    at,
                    wide,
                    Optional.ofNullable(differences.get(BomCompare.line(bom, r.above(), part))),
                    r.line().byHand(),
                    false,
                    r.ring(),
                    r.line().when());
        }

        /** What only the other one has stands where its find number would be, below what it was in. */
        private void gone(List<Spot> spots) {
            Set<String> placed = new HashSet<>();
            for (Difference d : differences.values()) {
                if (d.what() != What.GONE || !placed.add(d.line())) continue;
                BomCompare.Side old = d.old().orElseThrow();
                int begin = 0;
                int depth = 0;
                String find = old.find();
                if (d.above() != Long.MIN_VALUE) {
                    begin = at(spots, d.above());
                    if (begin < 0) continue;
                    depth = spots.get(begin - 1).depth() + 1;
                    find = spots.get(begin - 1).find() + "/" + old.find();
                }
                int level = depth;
                String number = find;
                spots.add(
                        spot(spots, begin, depth, old.find()),
                        new Spot(depth, find, old.part().item(), true, () -> gone(d, old, level, number)));
            }
        }

        private static Row gone(Difference d, BomCompare.Side old, int depth, String find) {
            return new Row(
                    depth,
                    find,
                    old.part(),
                    new Stands(Optional.empty(), 0, Optional.empty(), Map.of(), ""),
                    old.quantity().map(q -> amount(q) + " " + old.part().unit()).orElse(old.written()),
                    Amount.NONE,
                    Amount.NONE,
                    0,
                    0,
                    Optional.of(d),
                    false,
                    true,
                    false,
                    old.when());
        }

        /** Behind the first row of a document, or -1. */
        private static int at(List<Spot> spots, long item) {
            for (int i = 0; i < spots.size(); i++)
                if (!spots.get(i).gone() && spots.get(i).item() == item) return i + 1;
            return -1;
        }

        private static int spot(List<Spot> rows, int begin, int depth, String find) {
            int i = begin;
            while (i < rows.size() && rows.get(i).depth() >= depth) {
                Spot row = rows.get(i);
                String own = row.find().substring(row.find().lastIndexOf('/') + 1);
                if (row.depth() == depth && FindNumbers.compare(own, find) > 0) return i;
                i++;
            }
            return i;
        }
    }
}
