package mintshelf.core.drawing.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.check.CheckRules.Severity;

/**
 * Rules as text, a line each: {@code text-height = binding}, with {@code hint}, {@code binding} or {@code off};
 * {@code least-text = 2.5}, {@code demanded = number, title}, {@code house-layers = OUTLINE, DIM}. Lines that begin with # are remarks;
 * what is left out is as a house begins with.
 */
public final class RuleFile {
    private static final Set<String> SEVERITIES = Set.of("hint", "binding", "off");

    private RuleFile() {}

    /** Reads rules, or says which line is none. */
    public static Outcome<CheckRules> read(String text) {
        CheckRules usual = CheckRules.hints();
        Map<Rule, Severity> severities = new EnumMap<>(usual.severities());
        List<String> demanded = usual.demanded();
        double least = usual.leastText();
        Set<String> layers = Set.of();
        boolean layersSaid = false;
        int number = 0;
        for (String raw : text.lines().limit(10_000).toList()) {
            number++;
            String line = raw.strip();
            if (line.isEmpty() || line.startsWith("#")) continue;
            int equals = line.indexOf('=');
            if (equals < 0) return refused(number, "has no =");
            String name = line.substring(0, equals).strip().toLowerCase(Locale.ROOT);
            String value = line.substring(equals + 1).strip();
            boolean severe = SEVERITIES.contains(value.toLowerCase(Locale.ROOT));
            switch (name.equals("layers") && !severe ? "house-layers" : name) {
                case "demanded" -> demanded = list(value);
                case "house-layers" -> {
                    layers = new HashSet<>();
                    for (String layer : list(value)) layers.add(layer.toUpperCase(Locale.ROOT));
                    if (!layersSaid) severities.put(Rule.LAYERS, Severity.HINT);
                }
                case "least-text" -> {
                    try {
                        least = Double.parseDouble(value);
                    } catch (NumberFormatException e) {
                        return refused(number, "“" + value + "” is no number");
                    }
                    if (!(least > 0 && least < 100))
                        return refused(number, "“" + value + "” is no height in millimetres");
                }
                default -> {
                    if (rule(name).isEmpty()) return refused(number, "there is no rule “" + name + "”");
                    Rule rule = rule(name).get();
                    if (rule == Rule.LAYERS) layersSaid = true;
                    switch (value.toLowerCase(Locale.ROOT)) {
                        case "hint" -> severities.put(rule, Severity.HINT);
                        case "binding" -> severities.put(rule, Severity.BINDING);
                        case "off" -> severities.remove(rule);
                        default -> {
                            return refused(number, "“" + value + "” is not hint, binding or off");
                        }
                    }
                }
            }
        }
        return Outcome.granted(new CheckRules(severities, demanded, least, layers));
    }

    /** The same rules as text, every one of them; reading it gives them again. */
    public static String write(CheckRules rules) {
        StringBuilder out = new StringBuilder();
        for (Rule rule : Rule.values()) {
            Severity severity = rules.severities().get(rule);
            out.append(name(rule))
                    .append(" = ")
                    .append(severity == null ? "off" : severity.name().toLowerCase(Locale.ROOT))
                    .append('\n');
        }
        out.append("least-text = ").append(rules.leastText()).append('\n');
        out.append("demanded = ").append(String.join(", ", rules.demanded())).append('\n');
        if (!rules.layers().isEmpty()) {
            out.append("house-layers = ")
                    .append(String.join(", ", rules.layers().stream().sorted().toList()))
                    .append('\n');
        }
        return out.toString();
    }

    private static List<String> list(String value) {
        List<String> all = new ArrayList<>();
        for (String part : value.split(",", 200)) if (!part.isBlank()) all.add(part.strip());
        return all;
    }

    private static String name(Rule rule) {
        return rule.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static Optional<Rule> rule(String name) {
        return Arrays.stream(Rule.values()).filter(r -> name(r).equals(name)).findFirst();
    }

    private static Outcome<CheckRules> refused(int line, String why) {
        return Outcome.refused("check.rules", "Line " + line + " of the rules: " + why + ".", "");
    }
}
