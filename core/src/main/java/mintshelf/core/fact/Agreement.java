package mintshelf.core.fact;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import mintshelf.core.base.Texts;

/**
 * What several documents of one thing say of one fact: the drawing and the model of a part.
 *
 * @param said by which document, in their order; more than one
 * @param agrees whether all say the same
 */
public record Agreement(FactDefinition fact, Map<String, String> said, boolean agrees) {
    private static final Pattern PLAIN = Pattern.compile("[+-]?\\d{1,30}(\\.\\d{1,30})?");

    /** What one of them says, by fact. */
    public record Side(String name, Map<FactDefinition, String> facts) {}

    /** The facts that more than one of them says something of, in the order in which they come. */
    public static List<Agreement> of(List<Side> sides) {
        Map<String, FactDefinition> facts = new LinkedHashMap<>();
        sides.forEach(s -> s.facts().keySet().forEach(f -> facts.putIfAbsent(f.name(), f)));
        List<Agreement> all = new ArrayList<>();
        facts.values().forEach(fact -> {
            Map<String, String> said = new LinkedHashMap<>();
            for (Side side : sides) {
                side.facts().forEach((f, value) -> {
                    if (f.name().equals(fact.name()) && !value.isBlank()) said.put(side.name(), value);
                });
            }
            if (said.size() > 1) all.add(new Agreement(fact, said, agree(fact, List.copyOf(said.values()))));
        });
        return all;
    }

    private static boolean agree(FactDefinition fact, List<String> values) {
        for (int i = 0; i < values.size(); i++)
            for (int j = 0; j < i; j++) if (!same(fact, values.get(j), values.get(i))) return false;
        return true;
    }

    private static boolean same(FactDefinition fact, String one, String other) {
        return fact.type() == FactType.NUMBER
                ? sameNumber(one, other)
                : Texts.key(one).equals(Texts.key(other));
    }

    /**
     * Numbers are the same where the finer one, rounded to the decimals of the coarser one, is that (half up, ISO 80000-1, annex B): a sheet that says
     * 0.74 does not contradict a model that says 0.7384. What is no number is the same as itself.
     */
    public static boolean sameNumber(String one, String other) {
        // What files say is hostile: a power of ten with nine digits would be written out.
        if (!PLAIN.matcher(one).matches() || !PLAIN.matcher(other).matches()) return one.equals(other);
        BigDecimal a = new BigDecimal(one);
        BigDecimal b = new BigDecimal(other);
        int scale = Math.min(a.scale(), b.scale());
        return a.setScale(scale, RoundingMode.HALF_UP).compareTo(b.setScale(scale, RoundingMode.HALF_UP)) == 0;
    }
}
