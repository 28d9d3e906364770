package mintshelf.core.bom;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/**
 * A variant that a document describes beside others: the left one and the right one, one for each diameter. It has a name there, a part
 * number of its own, and facts that differ from those of the document. A revision of the document covers all of them.
 *
 * @param name by which lines name it; told apart without regard to case
 * @param number its part number; empty where it has none
 * @param facts that differ, by their names; what is not here is as the document says
 */
public record Variant(String name, String number, Map<String, String> facts) {
    /** Variants of one document. */
    public static final int MOST = 100;

    /** The facts that may differ. */
    public static final List<String> FACTS = List.of(
            PartFacts.COMES,
            "material",
            PartFacts.MASS,
            PartFacts.COST,
            PartFacts.LEAD_TIME,
            PartFacts.SUPPLIER,
            PartFacts.SUPPLIER_NUMBER);

    /** What is known of it: the facts of the document, and over them its own. */
    public Map<String, String> over(Map<String, String> documents) {
        Map<String, String> all = new LinkedHashMap<>(documents);
        all.putAll(facts);
        return all;
    }

    /** Reads a name: one line, at most 40 letters. */
    public static Outcome<String> name(String typed) {
        return Texts.required("The name of a variant", typed, 40);
    }

    /** Why some variants are none of one document: too many, two of one name or one number; nothing where they are. */
    public static Optional<Refusal> refusal(List<Variant> variants) {
        if (variants.size() > MOST)
            return Optional.of(Refusal.of(
                    "variant.many",
                    "These are " + variants.size() + " variants.",
                    "A document describes " + MOST + " at most; nothing was changed."));
        Set<String> names = new HashSet<>();
        Set<String> numbers = new HashSet<>();
        for (Variant one : variants) {
            if (!names.add(Texts.key(one.name())))
                return Optional.of(Refusal.of(
                        "variant.name",
                        "Two variants are called “" + one.name() + "”.",
                        "Give each its own name; nothing was changed."));
            if (!one.number().isEmpty() && !numbers.add(Texts.key(one.number())))
                return Optional.of(Refusal.of(
                        "variant.number",
                        "Two variants have the number " + one.number() + ".",
                        "Give each its own number; nothing was changed."));
        }
        return Optional.empty();
    }

    /**
     * What a revision says of each variant, compared with the one before: "left: mass 0.41 → 0.43", "wide: new", "short: gone"; those
     * that are as before are not named. O(variants).
     */
    public static List<String> changes(List<Variant> before, List<Variant> now) {
        Map<String, Variant> old = new LinkedHashMap<>();
        before.forEach(v -> old.put(Texts.key(v.name()), v));
        List<String> said = new ArrayList<>();
        for (Variant one : now) {
            Variant was = old.remove(Texts.key(one.name()));
            if (was == null) said.add(one.name() + ": new");
            else {
                List<String> differs = differences(was, one);
                if (!differs.isEmpty()) said.add(one.name() + ": " + String.join(", ", differs));
            }
        }
        old.values().forEach(gone -> said.add(gone.name() + ": gone"));
        return said;
    }

    private static List<String> differences(Variant was, Variant is) {
        List<String> differs = new ArrayList<>();
        if (!was.number().equals(is.number())) differs.add(fromTo("number", was.number(), is.number()));
        Set<String> names = new TreeSet<>(was.facts().keySet());
        names.addAll(is.facts().keySet());
        for (String name : names) {
            String old = was.facts().getOrDefault(name, "");
            String now = is.facts().getOrDefault(name, "");
            if (!old.equals(now)) differs.add(fromTo(name.replace('-', ' '), old, now));
        }
        return differs;
    }

    private static String fromTo(String what, String old, String now) {
        return what + " " + (old.isEmpty() ? "as the document says" : old) + " → "
                + (now.isEmpty() ? "as the document says" : now);
    }
}
