package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.fact.FactDefinition;

/**
 * What facts of a document say of the part that it describes. A part is no thing beside its leading document: it has the number, the
 * revisions and the facts of that.
 */
public record PartFacts(Optional<FactDefinition> massAs, Optional<FactDefinition> costAs) {
    public static final String COMES = "comes";
    public static final String UNIT = "unit";
    public static final String MASS = "mass";
    public static final String COST = "cost";
    public static final String LEAD_TIME = "lead-time";
    public static final String SUPPLIER = "supplier";
    public static final String SUPPLIER_NUMBER = "supplier-number";

    /** With the facts of a house, by their names. */
    public static PartFacts of(List<FactDefinition> facts) {
        return new PartFacts(called(facts, MASS), called(facts, COST));
    }

    private static Optional<FactDefinition> called(List<FactDefinition> facts, String name) {
        return facts.stream().filter(f -> f.name().equals(name)).findFirst();
    }

    /** The currency of costs; empty where the house has none. */
    public String currency() {
        return costAs.map(FactDefinition::unit).orElse("");
    }

    /** A part with what its facts say, by their names as text; what they do not say is usual: made, by the piece. */
    public BomPart part(
            long item, String number, String title, String revision, int version, Map<String, String> facts) {
        String unit = facts.getOrDefault(UNIT, BomUnits.PIECE);
        return new BomPart(
                item,
                number,
                title,
                revision,
                version,
                Comes.of(facts.getOrDefault(COMES, "")).orElse(Comes.MADE),
                BomUnits.ALL.contains(unit) ? unit : BomUnits.PIECE,
                decimal(facts.getOrDefault(MASS, "")).flatMap(m -> BomUnits.in(m, massUnit(), "kg")),
                decimal(facts.getOrDefault(COST, "")));
    }

    /** A mass without a unit is in kg. */
    private String massUnit() {
        return massAs.map(FactDefinition::unit).filter(u -> !u.isEmpty()).orElse("kg");
    }

    private static Optional<BigDecimal> decimal(String text) {
        if (!text.matches("\\d{1,20}(\\.\\d{1,10})?")) return Optional.empty();
        return Optional.of(new BigDecimal(text));
    }
}
