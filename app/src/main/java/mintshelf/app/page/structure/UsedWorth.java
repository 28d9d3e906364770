package mintshelf.app.page.structure;

import java.math.BigDecimal;
import java.util.Optional;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.RollUp;

/** What one of a part weighs and costs, and what so many of it come to where it stands. */
public final class UsedWorth {
    private final RollUp.Value mass;
    private final RollUp.Value cost;
    private final String currency;
    private final String unit;

    private UsedWorth(ReadBom.Read read) {
        this.mass = read.mass().top();
        this.cost = read.cost().top();
        this.currency = read.currency();
        this.unit = read.bom().top().unit();
    }

    /** Nothing where nothing of it is known. */
    static Optional<UsedWorth> of(Optional<ReadBom.Read> read) {
        return read.map(UsedWorth::new)
                .filter(w -> w.mass.known().signum() > 0 || w.cost.known().signum() > 0);
    }

    /** In words: "1 pc weighs 0.045 kg and costs 4.20 EUR". */
    public String one() {
        String weighs = mass.known().signum() > 0 ? "weighs " + mass(1) : "";
        String costs = cost.known().signum() > 0 ? "costs " + cost(1) : "";
        return "1 " + unit + " " + weighs + (weighs.isEmpty() || costs.isEmpty() ? "" : " and ") + costs;
    }

    public String mass(long many) {
        return value(mass, BigDecimal.valueOf(many), true);
    }

    public String cost(long many) {
        return value(cost, BigDecimal.valueOf(many), false);
    }

    /** What an amount weighs; empty where it is said in what cannot be made into its unit. */
    public String mass(BomLineStore.Measured amount) {
        return of(amount).map(many -> value(mass, many, true)).orElse("");
    }

    /** What an amount costs; empty where it is said in what cannot be made into its unit. */
    public String cost(BomLineStore.Measured amount) {
        return of(amount).map(many -> value(cost, many, false)).orElse("");
    }

    private Optional<BigDecimal> of(BomLineStore.Measured amount) {
        return BomUnits.in(amount.quantity(), amount.unit(), unit);
    }

    private String value(RollUp.Value one, BigDecimal many, boolean weight) {
        if (one.known().signum() == 0) return one.complete() ? "0" : "";
        BigDecimal all = one.known().multiply(many);
        return (one.complete() ? "" : "over ") + (weight ? BomView.kilograms(all) : BomView.money(all, currency));
    }
}
