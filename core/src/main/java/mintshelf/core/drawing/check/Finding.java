package mintshelf.core.drawing.check;

import mintshelf.core.drawing.Box;

/**
 * Something that a rule says of a sheet.
 *
 * @param count how many places it concerns; the box is the first one's
 * @param zone of the sheet, empty where the finding has no place or the drawing no zones
 * @param box where it is, {@link Box#EMPTY} for what concerns the sheet as a whole
 */
public record Finding(
        CheckRules.Rule rule,
        CheckRules.Severity severity,
        String says,
        String remedy,
        int count,
        String zone,
        Box box) {
    /** Whether it is in the way of a review. */
    public boolean isBinding() {
        return severity == CheckRules.Severity.BINDING;
    }

    /** What a waiver names: the same on the next version as long as rule and words are. */
    public String key() {
        return rule.name() + " " + says;
    }
}
