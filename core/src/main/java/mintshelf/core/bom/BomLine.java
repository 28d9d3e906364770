package mintshelf.core.bom;

import java.math.BigDecimal;

/**
 * A line of a BOM.
 *
 * @param find its find number
 * @param part place of the part in its {@link Bom}
 * @param unit that the quantity is in
 * @param byHand whether a person wrote it, not the file of what is above
 */
public record BomLine(String find, int part, BigDecimal quantity, String unit, boolean byHand) {}
