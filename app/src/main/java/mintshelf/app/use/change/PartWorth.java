package mintshelf.app.use.change;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RateStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.bom.Variant;
import mintshelf.core.document.Revision;
import org.springframework.stereotype.Component;

/** What the parts of documents cost, as the revision in force says, and which variants it covers: for who decides what becomes of old ones. */
@Component
class PartWorth {
    private final FactStore facts;
    private final HouseStore house;
    private final RateStore rates;
    private final PartStore parts;

    PartWorth(FactStore facts, HouseStore house, RateStore rates, PartStore parts) {
        this.facts = facts;
        this.house = house;
        this.rates = rates;
        this.parts = parts;
    }

    /**
     * Of a document.
     *
     * @param each what one of its part costs in the currency of the house, to the cent; nothing where nobody said it, or it has no rate
     * @param currency of the house; empty where it says none
     * @param variants by their names
     */
    record Of(Optional<BigDecimal> each, String currency, List<String> variants) {
        /** In words: "48.00 EUR each, covers plain, with tab"; empty where nothing is known. */
        String words() {
            String cost = each.map(e -> e.toPlainString() + (currency.isEmpty() ? "" : " " + currency) + " each")
                    .orElse("");
            String covers = variants.isEmpty() ? "" : "covers " + String.join(", ", variants);
            return cost + (cost.isEmpty() || covers.isEmpty() ? "" : ", ") + covers;
        }
    }

    /** By document, of the revisions in force; a handful of statements. */
    Map<Long, Of> of(Collection<Seen> documents) {
        PartFacts how = PartFacts.of(house.facts(), rates.rates());
        List<Long> revisions = documents.stream()
                .flatMap(s -> s.document().released().stream())
                .map(Revision::id)
                .toList();
        Map<Long, Map<String, String>> said = facts.facts(revisions);
        Map<Long, List<Variant>> variants = parts.variants(revisions);
        Map<Long, Of> worth = new HashMap<>();
        for (Seen seen : documents) {
            long revision = seen.document().released().map(Revision::id).orElse(0L);
            Optional<BigDecimal> each = how.part(
                            seen.spine().id(), "", "", "", "", 0, said.getOrDefault(revision, Map.of()))
                    .cost()
                    .own()
                    .map(c -> c.setScale(2, RoundingMode.HALF_UP));
            worth.put(
                    seen.spine().id(),
                    new Of(
                            each,
                            how.currency(),
                            variants.getOrDefault(revision, List.of()).stream()
                                    .map(Variant::name)
                                    .toList()));
        }
        return worth;
    }
}
