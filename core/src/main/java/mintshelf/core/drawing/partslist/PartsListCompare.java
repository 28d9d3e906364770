package mintshelf.core.drawing.partslist;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.drawing.Box;

/**
 * A sheet's parts list held against what its assembly consists of: lines are told by their numbers, what is left by find numbers. Which
 * balloons point at each, and which point at nothing. O(lines).
 *
 * @param lines in the order of find numbers
 * @param astray boxes of balloons that no line has, by their numbers
 */
public record PartsListCompare(List<Line> lines, Map<String, List<Box>> astray) {
    /**
     * @param sheet what the sheet says; nothing where it lacks the line
     * @param wanted what the assembly has; nothing where only the sheet has it
     * @param says what differs, in words; empty where the sheet is right
     * @param balloons that carry the number which the sheet gives it
     */
    public record Line(
            Optional<PartsList.PartLine> sheet, Optional<Wanted> wanted, List<String> says, List<Box> balloons) {
        public String find() {
            return wanted.map(Wanted::find)
                    .or(() -> sheet.map(PartsList.PartLine::find))
                    .orElse("");
        }

        public boolean isRight() {
            return says.isEmpty();
        }
    }

    public static PartsListCompare of(PartsList list, List<Wanted> wanted) {
        Map<String, PartsList.PartLine> byKey = new LinkedHashMap<>();
        list.lines().values().forEach(l -> byKey.putIfAbsent(Wanted.key(l.number(), l.title()), l));
        Map<Wanted, PartsList.PartLine> found = new LinkedHashMap<>();
        for (Wanted w : wanted) {
            PartsList.PartLine same = byKey.remove(w.key());
            if (same != null) found.put(w, same);
        }
        // What is left under the same find number stands in the place of what the sheet has there.
        for (Wanted w : wanted) {
            if (found.containsKey(w)) continue;
            byKey.values().stream()
                    .filter(l -> l.find().equals(w.find()))
                    .findFirst()
                    .ifPresent(l -> {
                        found.put(w, l);
                        byKey.values().remove(l);
                    });
        }
        List<Line> lines = new ArrayList<>();
        for (Wanted w : wanted) lines.add(line(list, Optional.ofNullable(found.get(w)), Optional.of(w)));
        list.lines().values().stream()
                .filter(l -> !found.containsValue(l))
                .forEach(l -> lines.add(line(list, Optional.of(l), Optional.empty())));
        lines.sort(Comparator.comparing(Line::find, FindNumbers::compare));
        Map<String, List<Box>> astray = new LinkedHashMap<>(list.balloons());
        astray.keySet().removeAll(list.lines().keySet());
        return new PartsListCompare(lines, astray);
    }

    private static Line line(PartsList list, Optional<PartsList.PartLine> sheet, Optional<Wanted> wanted) {
        List<String> says = new ArrayList<>();
        if (sheet.isEmpty()) says.add("not on the sheet");
        else if (wanted.isEmpty()) says.add("on the sheet only");
        else {
            PartsList.PartLine s = sheet.get();
            Wanted w = wanted.get();
            differs(says, "find", s.find(), w.find());
            differs(says, "quantity", s.quantity(), w.quantity());
            if (!Wanted.key(s.number(), "x").equals(Wanted.key(w.number(), "x")))
                differs(says, "number", s.number(), w.number());
            if (s.values().keySet().stream().anyMatch(PartsList.TITLE::contains))
                differs(says, "title", s.title(), w.title());
        }
        List<Box> balloons = sheet.map(s -> list.balloons().getOrDefault(s.find(), List.of()))
                .orElse(List.of());
        return new Line(sheet, wanted, says, balloons);
    }

    private static void differs(List<String> says, String what, String old, String now) {
        if (!old.equals(now))
            says.add(what + " " + (old.isEmpty() ? "none" : old) + " → " + (now.isEmpty() ? "none" : now));
    }

    /** How many lines are not as the assembly has them. */
    public long wrong() {
        return lines.stream().filter(l -> !l.isRight()).count();
    }

    /** Lines of the sheet that no balloon points at. */
    public List<Line> without() {
        return lines.stream()
                .filter(l -> l.sheet().isPresent() && l.balloons().isEmpty())
                .toList();
    }
}
