package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/** Variants that a document describes, and what somebody says of its part in the place of what the lines sum to. */
@Service
public class KeepVariants {
    private final Sight sight;
    private final NumberStore numbers;
    private final PartStore parts;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final FactValues values;
    private final FactsChanged changed;
    private final Acts acts;
    private final Clock clock;

    public KeepVariants(
            Sight sight,
            NumberStore numbers,
            PartStore parts,
            RevisionStore revisions,
            HouseStore house,
            FactValues values,
            FactsChanged changed,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.numbers = numbers;
        this.parts = parts;
        this.revisions = revisions;
        this.house = house;
        this.values = values;
        this.changed = changed;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * The variants of a document as somebody sees them.
     *
     * @param refusal why they are not changed; nothing where this person may
     * @param facts those that may differ
     * @param changes what became of each since the revision before, in words
     * @param before the revision before, as shown; empty for the first
     */
    public record Read(
            Seen top,
            Optional<Refusal> refusal,
            List<Variant> variants,
            List<FactDefinition> facts,
            List<String> changes,
            String before) {}

    public Read read(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        long revision = seen.current().id();
        Optional<RevisionRow> before = revisions.revisions(item).stream()
                .filter(r -> r.releasedVersion().isPresent() && r.revision().id() < revision)
                .reduce((a, b) -> b);
        List<Long> both = new ArrayList<>(List.of(revision));
        before.ifPresent(b -> both.add(b.revision().id()));
        Map<Long, List<Variant>> found = parts.variants(both);
        List<Variant> now = found.getOrDefault(revision, List.of());
        List<String> changes = before.map(
                        b -> Variant.changes(found.getOrDefault(b.revision().id(), List.of()), now))
                .orElse(List.of());
        return new Read(
                seen,
                KeepBomLines.refusal(actor, seen),
                now,
                facts(),
                changes,
                before.map(b -> b.revision().shown()).orElse(""));
    }

    private List<FactDefinition> facts() {
        return house.facts().stream()
                .filter(f -> Variant.FACTS.contains(f.name()))
                .toList();
    }

    /**
     * Keeps the variants in the place of those that were; those without a name are left out.
     *
     * @param typed name, number and facts as they were typed
     */
    public String keep(Actor actor, long item, String key, List<Variant> typed) {
        return acts.once(actor, key, () -> {
            Seen seen = open(actor, item);
            List<Variant> now = new ArrayList<>();
            for (Variant one : typed) if (!isEmpty(one)) now.add(checked(actor, item, one));
            Variant.refusal(now).ifPresent(r -> {
                throw new Refused(r);
            });
            long revision = seen.current().id();
            List<Variant> before = parts.variants(List.of(revision)).getOrDefault(revision, List.of());
            List<String> said = Variant.changes(before, now);
            parts.keep(revision, now);
            if (!said.isEmpty())
                changed.noteLine(actor, seen, Texts.shorten("variants: " + String.join("; ", said), 400));
            return "/documents/" + item + "/variants";
        });
    }

    private static boolean isEmpty(Variant typed) {
        return typed.name().isBlank()
                && typed.number().isBlank()
                && typed.facts().values().stream().allMatch(String::isBlank);
    }

    private Variant checked(Actor actor, long item, Variant typed) {
        String name = Variant.name(typed.name()).orElseThrow(Refused::new);
        String number = "";
        if (!typed.number().isBlank()) {
            NumberKey key = NumberKey.of(typed.number()).orElseThrow(Refused::new);
            // One that the document itself has is the variant that it is first of all.
            boolean others = numbers.items(key).stream().anyMatch(other -> other != item);
            if (others || !parts.claim(key, item))
                throw Refused.because(
                        "variant.number_taken",
                        key.number() + " is the number of something else.",
                        "Take another one; nothing was changed.");
            number = key.number();
        }
        Map<String, String> facts = new LinkedHashMap<>();
        Set<String> known = new TreeSet<>();
        for (FactDefinition fact : facts()) {
            known.add(fact.name());
            String raw = typed.facts().getOrDefault(fact.name(), "");
            String value = raw.isBlank() ? "" : values.read(actor, fact, raw);
            if (!value.isEmpty()) facts.put(fact.name(), value);
        }
        if (!known.containsAll(typed.facts().keySet())) throw new NotThere();
        return new Variant(name, number, facts);
    }

    private Seen open(Actor actor, long item) {
        Seen seen = sight.locked(actor, item);
        if (!seen.all()) throw new NotThere();
        KeepBomLines.refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        return seen;
    }

    /**
     * Says what a part weighs or costs in the place of what its lines sum to, or takes that back.
     *
     * @param value in kg, or in the currency of the house; empty to take it back
     * @param why it counts; needed with a value
     */
    public String say(Actor actor, long item, String key, RollUp.Of what, String value, String why) {
        return acts.once(actor, key, () -> {
            Seen seen = open(actor, item);
            Optional<BigDecimal> amount =
                    BomUnits.amount("Its " + what.word(), value).orElseThrow(Refused::new);
            String reason =
                    amount.isPresent() ? Texts.required("The reason", why, 300).orElseThrow(Refused::new) : "";
            parts.say(seen.current().id(), what, amount, reason, actor.person(), clock.instant());
            changed.noteLine(
                    actor,
                    seen,
                    amount.map(a -> "says a " + what.word() + " of " + a.toPlainString()
                                    + " in the place of the sum of its lines: " + reason)
                            .orElse("lets its lines say its " + what.word() + " again"));
            return "/documents/" + item + "/bom";
        });
    }
}
