package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.Optional;

/**
 * A part as it stands in a BOM: a document at a version, or something that was named by hand.
 *
 * @param item its document; a number below 0 for what has none
 * @param revision its tab, as shown; empty for what has none
 * @param version its version; 0 for what has none, or none in the view that is read
 * @param unit that its quantities are in
 * @param mass of one unit, kg
 * @param cost of one unit, in the currency of the house
 */
public record BomPart(
        long item,
        String number,
        String title,
        String revision,
        int version,
        Comes comes,
        String unit,
        Optional<BigDecimal> mass,
        Optional<BigDecimal> cost) {
    /** What it is called among others. */
    public String shown() {
        return number.isEmpty() ? title : number;
    }

    /** What is given by its unit weighs what it measures; else what a fact says. */
    Optional<BigDecimal> weighs() {
        return mass.or(() -> BomUnits.in(BigDecimal.ONE, unit, "kg"));
    }
}
