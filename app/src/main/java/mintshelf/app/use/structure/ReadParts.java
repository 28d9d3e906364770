package mintshelf.app.use.structure;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RateStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.PartFacts;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import mintshelf.core.bom.Worth;
import org.springframework.stereotype.Component;

/** What revisions say of the parts that they describe. */
@Component
class ReadParts {
    private final FactStore facts;
    private final HouseStore house;
    private final RateStore rates;
    private final PartStore parts;

    ReadParts(FactStore facts, HouseStore house, RateStore rates, PartStore parts) {
        this.facts = facts;
        this.house = house;
        this.rates = rates;
        this.parts = parts;
    }

    /** Of revisions, a few statements. */
    Known of(Collection<Long> revisions) {
        return new Known(
                PartFacts.of(house.facts(), rates.rates()),
                facts.facts(revisions),
                parts.variants(revisions),
                parts.instead(revisions));
    }

    /** What some revisions say. */
    record Known(
            PartFacts how,
            Map<Long, Map<String, String>> said,
            Map<Long, List<Variant>> variants,
            Map<Long, Map<RollUp.Of, Worth.Instead>> instead) {
        /** A variant of a revision by its name; nothing where it has none of that name. */
        Optional<Variant> variant(long revision, String name) {
            String key = Texts.key(name);
            return variants.getOrDefault(revision, List.of()).stream()
                    .filter(v -> Texts.key(v.name()).equals(key))
                    .findFirst();
        }

        Map<String, String> facts(long revision, Optional<Variant> variant) {
            Map<String, String> of = said.getOrDefault(revision, Map.of());
            return variant.map(v -> v.over(of)).orElse(of);
        }

        /**
         * A part, as a revision and, where it is one of its variants, that says.
         *
         * @param says the revision whose facts these are: that of the part where it has revisions of its own
         */
        BomPart part(
                long item,
                long revision,
                long says,
                Optional<Variant> variant,
                String number,
                String title,
                String shown,
                int version) {
            BomPart part = how.part(
                    item,
                    variant.map(Variant::name).orElse(""),
                    variant.map(Variant::number).filter(n -> !n.isEmpty()).orElse(number),
                    variant.map(v -> title + ", " + v.name()).orElse(title),
                    shown,
                    version,
                    facts(says, variant));
            Map<RollUp.Of, Worth.Instead> other = instead.getOrDefault(revision, Map.of());
            // What was weighed was the document's part, not one of its variants.
            if (other.isEmpty() || variant.isPresent()) return part;
            return part.instead(
                    Optional.ofNullable(other.get(RollUp.Of.MASS)), Optional.ofNullable(other.get(RollUp.Of.COST)));
        }
    }
}
