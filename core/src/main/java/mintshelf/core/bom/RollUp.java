package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What a product weighs, or costs: summed from its lines, from below. What is made of lines is their sum, whatever a fact of its own
 * says; what comes whole, and what has no lines, is what its fact says. Somebody may say another value in the place of a sum, with a
 * reason: it counts, and what the lines lack does not matter then. A sum that lacks something says so and stands for what is
 * known of it. O(parts + lines).
 */
public final class RollUp {
    private final Bom bom;
    private final BigDecimal[] known;
    private final BigDecimal[] ofLines;
    private final boolean[] complete;
    private final List<Lack> lacking = new ArrayList<>();

    /** What is summed. */
    public enum Of {
        MASS,
        COST;

        Optional<BigDecimal> own(BomPart part) {
            return this == MASS ? part.weighs() : part.cost().own();
        }

        Worth worth(BomPart part) {
            return this == MASS ? part.mass() : part.cost();
        }

        public String word() {
            return this == MASS ? "mass" : "cost";
        }
    }

    /**
     * What keeps a sum from being complete.
     *
     * @param place of the part that has no value, or that a line counts in another unit
     * @param why in words: "no mass", "2 m of it, which is counted in pc"
     */
    public record Lack(int place, String why) {}

    /** A value, and whether it is all. */
    public record Value(BigDecimal known, boolean complete) {}

    private RollUp(Bom bom, Of what) {
        this.bom = bom;
        this.known = new BigDecimal[bom.size()];
        this.ofLines = new BigDecimal[bom.size()];
        this.complete = new boolean[bom.size()];
        int[] order = bom.order();
        boolean[] counts = counted(order, what);
        for (int i = order.length - 1; i >= 0; i--) sum(order[i], what);
        for (int part : order) if (counts[part]) lack(part, what);
    }

    public static RollUp of(Bom bom, Of what) {
        return new RollUp(bom, what);
    }

    /** Parts that are part of the sum of the top: not those inside of what comes whole. */
    private boolean[] counted(int[] order, Of what) {
        boolean[] counts = new boolean[bom.size()];
        counts[0] = true;
        for (int part : order) {
            if (!counts[part] || !isSummed(part) || isSaid(part, what)) continue;
            bom.lines(part).forEach(line -> counts[line.part()] = true);
        }
        return counts;
    }

    private boolean isSummed(int part) {
        return !bom.lines(part).isEmpty()
                && (part == 0 || !bom.part(part).comes().isWhole());
    }

    private boolean isSaid(int part, Of what) {
        return what.worth(bom.part(part)).instead().isPresent();
    }

    private void sum(int part, Of what) {
        own(part, what);
        ofLines[part] = known[part];
        what.worth(bom.part(part)).instead().ifPresent(other -> {
            known[part] = other.value();
            complete[part] = true;
        });
    }

    private void own(int part, Of what) {
        if (!isSummed(part)) {
            Optional<BigDecimal> own = what.own(bom.part(part));
            known[part] = own.orElse(BigDecimal.ZERO);
            complete[part] = own.isPresent();
            return;
        }
        BigDecimal sum = BigDecimal.ZERO;
        boolean all = true;
        List<BomLine> lines = bom.lines(part);
        for (int i = 0; i < lines.size(); i++) {
            BomLine line = lines.get(i);
            Optional<BigDecimal> quantity = bom.quantity(line);
            if (bom.isRing(part, i) || quantity.isEmpty()) {
                all = false;
                continue;
            }
            sum = sum.add(quantity.get().multiply(known[line.part()], Bom.DIGITS), Bom.DIGITS);
            all &= complete[line.part()];
        }
        known[part] = sum;
        complete[part] = all;
    }

    private void lack(int part, Of what) {
        if (isSaid(part, what)) return;
        if (!isSummed(part)) {
            String why = what.worth(bom.part(part)).lacks();
            if (!complete[part]) lacking.add(new Lack(part, why.isEmpty() ? "no " + what.word() : why));
            return;
        }
        List<BomLine> lines = bom.lines(part);
        for (int i = 0; i < lines.size(); i++) {
            BomLine line = lines.get(i);
            if (bom.isRing(part, i)) lacking.add(new Lack(line.part(), "it stands above itself"));
            else if (line.open())
                lacking.add(new Lack(line.part(), "only " + line.when().says()));
            else if (bom.quantity(line).isEmpty())
                lacking.add(new Lack(
                        line.part(),
                        line.quantity().toPlainString() + " " + line.unit() + " of it, which is counted in "
                                + bom.part(line.part()).unit()));
        }
    }

    /** Of one of a part. */
    public Value of(int place) {
        return new Value(known[place], complete[place]);
    }

    /** What is known of its lines, or of its own fact, whatever somebody says instead. */
    public BigDecimal ofLines(int place) {
        return ofLines[place];
    }

    public Value top() {
        return of(0);
    }

    /** What the sum of the top lacks, each part once where it lacks a value. */
    public List<Lack> lacking() {
        return List.copyOf(lacking);
    }
}
