package mintshelf.core.bom;

import java.math.BigDecimal;

/**
 * A line of a BOM.
 *
 * @param find its find number
 * @param part place of the part in its {@link Bom}
 * @param unit that the quantity is in
 * @param byHand whether a person wrote it, not the file of what is above
 * @param when which products it is part of
 * @param open whether that depends on what nobody asked for: it counts for nothing then, and keeps sums from being complete
 */
public record BomLine(
        String find, int part, BigDecimal quantity, String unit, boolean byHand, Effectivity when, boolean open) {
    /** A line of every product. */
    public BomLine(String find, int part, BigDecimal quantity, String unit, boolean byHand) {
        this(find, part, quantity, unit, byHand, Effectivity.ALWAYS, false);
    }
}
