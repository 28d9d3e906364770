package mintshelf.core.fact;

import java.math.BigDecimal;
import java.time.LocalDate;

/** A fact's value, typed. */
public sealed interface FactValue {
    /** A text, a choice, "yes" or "no", a person's login, or a document's number. */
    record Words(String text) implements FactValue {}

    /** A number in the fact's own unit. */
    record Quantity(BigDecimal number) implements FactValue {}

    /** A calendar day. */
    record Day(LocalDate day) implements FactValue {}

    /** As kept in a version's snapshot and shown without its unit. */
    default String text() {
        if (this instanceof Words words) return words.text();
        if (this instanceof Quantity quantity) return quantity.number().toPlainString();
        return ((Day) this).day().toString();
    }
}
