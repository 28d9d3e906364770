package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.Optional;

/**
 * A part as it stands in a BOM: a document at a version, one of its variants, or something that was named by hand.
 *
 * @param item its document; a number below 0 for what has none
 * @param variant the name of the variant that it is; empty for the document itself
 * @param revision its tab, as shown; empty for what has none
 * @param version its version; 0 for what has none, or none in the view that is read
 * @param unit that its quantities are in
 * @param mass of one unit, kg
 * @param cost of one unit, in the currency of the house
 */
public record BomPart(
        long item,
        String variant,
        String number,
        String title,
        String revision,
        int version,
        Comes comes,
        String unit,
        Worth mass,
        Worth cost) {
    /** A part without variants, of which nobody says other sums. */
    public BomPart(
            long item,
            String number,
            String title,
            String revision,
            int version,
            Comes comes,
            String unit,
            Optional<BigDecimal> mass,
            Optional<BigDecimal> cost) {
        this(item, "", number, title, revision, version, comes, unit, Worth.of(mass), Worth.of(cost));
    }

    /** What it is called among others. */
    public String shown() {
        return number.isEmpty() ? title : number;
    }

    /** What is given by its unit weighs what it measures; else what a fact says. */
    Optional<BigDecimal> weighs() {
        return mass.own().or(() -> BomUnits.in(BigDecimal.ONE, unit, "kg"));
    }

    /** The same part where nothing is known of it, for a reason: it is named as a variant that is not there. */
    public BomPart lacking(String named, String why) {
        return new BomPart(
                item,
                named,
                number,
                title + ", " + named,
                revision,
                version,
                comes,
                unit,
                Worth.lacking(why),
                Worth.lacking(why));
    }

    /** The same part with what somebody says in the place of sums of its lines. */
    public BomPart instead(Optional<Worth.Instead> otherMass, Optional<Worth.Instead> otherCost) {
        return new BomPart(
                item,
                variant,
                number,
                title,
                revision,
                version,
                comes,
                unit,
                mass.instead(otherMass),
                cost.instead(otherCost));
    }
}
