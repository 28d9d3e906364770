package mintshelf.core.bom;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.base.Texts;

/** Variants of one file: products beside each other in it, none of them in another one (ISO 10303-41, product). */
public final class FileVariants {
    private static final int LONGEST = 40;

    private FileVariants() {}

    /**
     * A product that stands in no other one of its file.
     *
     * @param id by which its maker knows it, {@code name} as it is called
     * @param facts what the file says of it, by fact name
     */
    public record Told(String id, String name, Map<String, String> facts) {}

    /**
     * The products as variants: each by its name, by its id where it has none or several are called so; its id is its part number, but where that
     * is its name, or the document's number. Nothing where there is one product: that is the document's own part. O(products).
     *
     * @param number of the document
     */
    public static List<Variant> of(List<Told> products, String number) {
        if (products.size() < 2) return List.of();
        Set<String> once = new HashSet<>();
        Set<String> often = new HashSet<>();
        for (Told one : products) if (!once.add(Texts.key(one.name()))) often.add(Texts.key(one.name()));
        List<Variant> variants = new ArrayList<>();
        for (Told one : products) {
            boolean byId = one.name().isBlank() || often.contains(Texts.key(one.name()));
            String name = Texts.shorten((byId ? one.id() : one.name()).strip(), LONGEST);
            String id = one.id().strip();
            boolean own = Texts.key(id).equals(Texts.key(name)) || Texts.key(id).equals(Texts.key(number));
            Map<String, String> facts = new LinkedHashMap<>(one.facts());
            facts.keySet().retainAll(Variant.FACTS);
            variants.add(new Variant(name, own ? "" : id, facts));
        }
        return variants;
    }

    /**
     * Variants with what a file says of them: what it says counts, what it is silent about stays, those that it has beside them come behind. They
     * are known by name, else by number. O(variants · told).
     */
    public static List<Variant> over(List<Variant> variants, List<Variant> told) {
        List<Variant> all = new ArrayList<>(variants);
        for (Variant one : told) {
            int at = place(all, one);
            if (at < 0) {
                all.add(one);
                continue;
            }
            Variant before = all.get(at);
            all.set(
                    at,
                    new Variant(
                            before.name(),
                            before.number().isEmpty() ? one.number() : before.number(),
                            one.over(before.facts())));
        }
        return all;
    }

    private static int place(List<Variant> all, Variant one) {
        for (int i = 0; i < all.size(); i++) if (Texts.key(all.get(i).name()).equals(Texts.key(one.name()))) return i;
        if (one.number().isEmpty()) return -1;
        for (int i = 0; i < all.size(); i++)
            if (Texts.key(all.get(i).number()).equals(Texts.key(one.number()))) return i;
        return -1;
    }
}
