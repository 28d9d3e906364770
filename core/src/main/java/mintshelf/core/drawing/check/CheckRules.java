package mintshelf.core.drawing.check;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Which rules a kind of drawing is held to, and how strictly.
 *
 * @param severities of each rule; a rule that is left out is not looked at
 * @param demanded facts of the title block that may not be empty
 * @param leastText the smallest height of letters, in millimetres of the sheet
 * @param layers that drawings may use, in capitals; empty for any
 */
public record CheckRules(Map<Rule, Severity> severities, List<String> demanded, double leastText, Set<String> layers) {
    public CheckRules {
        severities = Map.copyOf(severities);
        demanded = List.copyOf(demanded);
        layers = Set.copyOf(layers);
    }

    /** What a rule looks at. The names are those of rule files. */
    public enum Rule {
        TITLE_BLOCK("the title block is filled in"),
        TITLE_RECORD("the title block says what the record says"),
        MODEL_RECORD("a model says what the record says of its part, its mass above all"),
        SHEET_FORMAT("the sheet has a format of ISO 5457"),
        SCALE("the scale is one of ISO 5455"),
        TEXT_HEIGHT("letters are high enough to be read"),
        TEXT_SERIES("heights of letters are of the series of ISO 3098-1"),
        TEXT_ROOM("texts keep clear of each other and stay in their cells"),
        LINE_WIDTH("line widths are of the series of ISO 128-2"),
        LAYERS("lines are on the layers of the house"),
        DIMENSION_OVERRIDDEN("dimensions show what they measure"),
        DIMENSION_WRONG("a typed dimension agrees with what is drawn"),
        DOUBLED("nothing is drawn twice"),
        NO_LENGTH("nothing is drawn without a length"),
        OFF_SHEET("nothing lies off the sheet"),
        BALLOONS("the parts list and the balloons agree"),
        MISSING_REFERENCE("nothing refers to what is missing"),
        UNREAD("all of it can be read"),
        SHEET_READ("there is a sheet that can be read");

        private final String says;

        Rule(String says) {
            this.says = says;
        }

        /** What is so when the rule is kept. */
        public String says() {
            return says;
        }
    }

    /** How strictly a rule is meant. */
    public enum Severity {
        /** Told, and no more. */
        HINT,
        /** In the way of a review until it is mended or waived in words. */
        BINDING
    }

    /** Whether some rule of these can be in the way of a review. */
    public boolean isBinding() {
        return severities.containsValue(Severity.BINDING);
    }

    /**
     * What a house begins with: everything is a hint, for no house agrees with every clause of a standard. That a sheet can be read
     * at all is binding: what nobody can read passes every other rule.
     */
    public static CheckRules hints() {
        Map<Rule, Severity> all = new EnumMap<>(Rule.class);
        for (Rule rule : Rule.values()) all.put(rule, Severity.HINT);
        all.remove(Rule.LAYERS);
        all.put(Rule.SHEET_READ, Severity.BINDING);
        return new CheckRules(all, List.of("number", "title", "revision", "scale", "material"), 2.5, Set.of());
    }
}
