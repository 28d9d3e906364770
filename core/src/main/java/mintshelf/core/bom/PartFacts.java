package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.fact.FactDefinition;

/**
 * What facts of a document say of the part that it describes. A part is no thing beside its leading document: it has the number, the
 * revisions and the facts of that.
 *
 * @param rates what one unit of another currency is in that of the house, by the codes of ISO 4217
 */
public record PartFacts(
        Optional<FactDefinition> massAs, Optional<FactDefinition> costAs, Map<String, BigDecimal> rates) {
    public static final String COMES = "comes";
    public static final String UNIT = "unit";
    public static final String MASS = "mass";
    public static final String COST = "cost";
    public static final String CURRENCY = "currency";
    public static final String LEAD_TIME = "lead-time";
    public static final String SUPPLIER = "supplier";
    public static final String SUPPLIER_NUMBER = "supplier-number";

    /** With the facts of a house, by their names, and its rates. */
    public static PartFacts of(List<FactDefinition> facts, Map<String, BigDecimal> rates) {
        return new PartFacts(called(facts, MASS), called(facts, COST), Map.copyOf(rates));
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
            long item,
            String variant,
            String number,
            String title,
            String revision,
            int version,
            Map<String, String> facts) {
        String unit = facts.getOrDefault(UNIT, BomUnits.PIECE);
        return new BomPart(
                item,
                variant,
                number,
                title,
                revision,
                version,
                Comes.of(facts.getOrDefault(COMES, "")).orElse(Comes.MADE),
                BomUnits.ALL.contains(unit) ? unit : BomUnits.PIECE,
                Worth.of(decimal(facts.getOrDefault(MASS, "")).flatMap(m -> BomUnits.in(m, massUnit(), "kg"))),
                cost(facts.getOrDefault(COST, ""), facts.getOrDefault(CURRENCY, "")));
    }

    private Worth cost(String text, String in) {
        Optional<BigDecimal> cost = decimal(text);
        if (cost.isEmpty() || in.isEmpty() || in.equals(currency())) return Worth.of(cost);
        BigDecimal rate = rates.get(in);
        if (rate == null) return Worth.lacking("its cost is in " + in + ", of which the house has no rate");
        return Worth.of(cost.map(c -> c.multiply(rate, Bom.DIGITS)));
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
