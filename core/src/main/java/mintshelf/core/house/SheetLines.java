package mintshelf.core.house;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import mintshelf.core.drawing.titleblock.SheetMap;

/** Sheet maps and checks in lines, so that their editions can be laid beside each other. */
public final class SheetLines {
    private SheetLines() {}

    /** @param inUse whether sheets are read and written by it */
    public static List<RuleLine> of(SheetMap map, boolean inUse) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of("In use", inUse ? "yes" : "no"));
        lines.add(RuleLine.of("Title block", map.block().isEmpty() ? "any block" : map.block()));
        lines.add(RuleLine.of("Sheet format", map.format().isEmpty() ? "any" : map.format()));
        for (SheetMap.Field f : map.fields()) {
            String whose = f.way() == SheetMap.Way.WRITTEN ? "the record says it" : "the sheet says it";
            lines.add(new RuleLine("field " + f.shown() + " " + f.fact(), f.fact(), f.shown() + "; " + whose));
        }
        lines.add(RuleLine.of(
                "Revision block", map.revisions().map(SheetLines::of).orElse("the shelf leaves it alone")));
        for (RevisionBlock.Column c :
                map.revisions().map(RevisionBlock::columns).orElse(List.of())) {
            lines.add(new RuleLine(
                    "column " + c.tag(),
                    "Column " + c.tag(),
                    c.fact() + ", headed “" + c.heading() + "”, " + number(c.width()) + " mm wide"));
        }
        return List.copyOf(lines);
    }

    private static String of(RevisionBlock r) {
        return (r.block().isEmpty() ? "no block of the sheet's own" : "the sheet's block " + r.block())
                + "; " + r.most() + " rows at most, " + (r.upwards() ? "growing upwards" : "growing downwards") + ", "
                + (r.lines() == 1 ? "one row" : "up to " + r.lines() + " rows") + " for a revision"
                + (r.releasedOnly() ? ", once it is released" : "")
                + (r.drawn() ? "; drawn where there is none" : "; not drawn where there is none")
                + ", " + number(r.fromRight()) + " mm from the right, " + number(r.fromBottom())
                + " mm from the lower edge, rows of " + number(r.rowHeight()) + " mm, letters of "
                + number(r.textHeight()) + " mm";
    }

    /** @param role name of the role that may let a binding finding pass */
    public static List<RuleLine> of(CheckRules rules, String role) {
        Map<CheckRules.Rule, CheckRules.Severity> severities = rules.severities();
        List<RuleLine> lines = new ArrayList<>(Arrays.stream(CheckRules.Rule.values())
                .map(rule -> new RuleLine(
                        rule.name(),
                        rule.says(),
                        Optional.ofNullable(severities.get(rule))
                                .map(s -> s == CheckRules.Severity.BINDING ? "binding" : "a hint")
                                .orElse("not looked at")))
                .toList());
        lines.add(RuleLine.of("The title block must have", listed(rules.demanded())));
        lines.add(RuleLine.of("Letters at least", number(rules.leastText()) + " mm"));
        lines.add(RuleLine.of(
                "Layers of the house",
                rules.layers().isEmpty()
                        ? "any"
                        : listed(rules.layers().stream().sorted().toList())));
        lines.add(RuleLine.of("Let pass by", "a " + role));
        return List.copyOf(lines);
    }

    private static String listed(List<String> names) {
        return names.isEmpty() ? "nothing" : names.stream().collect(Collectors.joining(", "));
    }

    private static String number(double n) {
        return n == Math.rint(n) ? Long.toString((long) n) : Double.toString(n);
    }
}
