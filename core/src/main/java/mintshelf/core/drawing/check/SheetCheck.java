package mintshelf.core.drawing.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.check.CheckRules.Rule;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.Dimensions;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.partslist.PartsList;
import mintshelf.core.drawing.titleblock.SheetScale;
import mintshelf.core.fact.Agreement;

/** Holds a sheet against rules. O(bytes + primitives). */
public final class SheetCheck {
    /** Nominal heights of letters, ISO 3098-1:2015, table 1. */
    private static final double[] HEIGHTS = {1.8, 2.5, 3.5, 5, 7, 10, 14, 20};
    /** Widths of lines, ISO 128-2:2020, clause 5. */
    private static final double[] WIDTHS = {0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1, 1.4, 2};

    private final CheckRules rules;
    private final Scene scene;
    private final Box extents;
    private final Zones zones;
    private final List<Finding> findings = new ArrayList<>();

    private SheetCheck(CheckRules rules, Scene scene) {
        this.rules = rules;
        this.scene = scene;
        this.extents = scene.extents();
        this.zones = Zones.of(scene);
    }

    /**
     * Checks a sheet.
     *
     * @param said what its title block says, by fact name
     * @param record what the record says of the facts that the sheet shows, by fact name; empty where there is no record
     * @param numbers names of the facts that are numbers: they agree as {@link Agreement#sameNumber} says
     */
    public static List<Finding> check(
            DxfDrawing drawing,
            CheckRules rules,
            Map<String, String> said,
            Map<String, String> record,
            Set<String> numbers) {
        Outcome<Scene> read = drawing.scene();
        if (!(read instanceof Outcome.Granted<Scene> scene)) {
            return unread(rules, read.refusal().orElseThrow().reason());
        }
        SheetCheck check = new SheetCheck(rules, scene.value());
        check.titleBlock(said, record, numbers);
        check.format();
        check.scale(said);
        check.texts(drawing);
        check.room();
        check.widths();
        check.layers();
        check.dimensions(drawing, SheetScale.of(said.getOrDefault("scale", "")));
        check.doubled();
        check.withoutLength();
        check.offSheet();
        check.balloons(drawing);
        check.references(drawing);
        check.unread();
        return List.copyOf(check.findings);
    }

    /** What the rules say of a sheet that nobody can read: none of the others was looked at. */
    public static List<Finding> unread(CheckRules rules, String why) {
        Optional<CheckRules.Severity> severity =
                Optional.ofNullable(rules.severities().get(Rule.SHEET_READ));
        return severity.map(s -> List.of(new Finding(
                        Rule.SHEET_READ,
                        s,
                        "The sheet is not read. " + why,
                        "Bring it as an exchange drawing that can be read.",
                        1,
                        "",
                        Box.EMPTY)))
                .orElse(List.of());
    }

    private void find(Rule rule, String says, String remedy, int count, Box box) {
        Optional.ofNullable(rules.severities().get(rule)).ifPresent(severity -> {
            String zone = box.isEmpty() ? "" : zones.at(box.middleX(), box.middleY());
            findings.add(new Finding(rule, severity, says, remedy, count, zone, box));
        });
    }

    private void find(Rule rule, String says, String remedy) {
        find(rule, says, remedy, 1, Box.EMPTY);
    }

    private void titleBlock(Map<String, String> said, Map<String, String> record, Set<String> numbers) {
        if (said.isEmpty()) {
            find(
                    Rule.TITLE_BLOCK,
                    "No title block was found.",
                    "Place the house's title block, or add a sheet map that knows this one.");
            return;
        }
        for (String fact : rules.demanded()) {
            if (said.getOrDefault(fact, "").isBlank()) {
                find(
                        Rule.TITLE_BLOCK,
                        "The title block has no " + fact.replace('_', ' ') + ".",
                        "Fill it in on the sheet.");
            }
        }
        record.forEach((fact, value) -> {
            String on = said.getOrDefault(fact, "");
            boolean agrees = numbers.contains(fact) ? Agreement.sameNumber(on, value) : on.equals(value);
            if (!on.isBlank() && !value.isBlank() && !agrees) {
                find(
                        Rule.TITLE_RECORD,
                        "The sheet says " + fact.replace('_', ' ') + " “" + on + "”, the record “" + value + "”.",
                        "Change the one that is wrong.");
            }
        });
    }

    private void format() {
        if (extents.isEmpty() || !zones.format().isEmpty()) return;
        find(
                Rule.SHEET_FORMAT,
                String.format(
                        Locale.ROOT,
                        "The sheet is %.0f x %.0f, which is no format from A0 to A4.",
                        extents.width(),
                        extents.height()),
                "Draw the trimmed edge of a format of ISO 5457, in full size.");
    }

    private void scale(Map<String, String> said) {
        String text = said.getOrDefault("scale", "");
        if (text.isBlank()) return;
        OptionalDouble scale = SheetScale.of(text);
        if (scale.isEmpty()) {
            find(Rule.SCALE, "“" + text + "” is no scale.", "Write it as 1:2 or 5:1.");
        } else if (!SheetScale.isRecommended(scale.getAsDouble())) {
            find(
                    Rule.SCALE,
                    "The scale " + text + " is not one that ISO 5455 recommends.",
                    "Choose 1, 2 or 5 times a power of ten.");
        }
    }

    /** Heights count on the sheet: where model space is drawn to no sheet they cannot be told. */
    private void texts(DxfDrawing drawing) {
        if (zones.format().isEmpty()) return;
        Map<Double, List<Primitive>> small = new TreeMap<>();
        Map<Double, List<Primitive>> odd = new TreeMap<>();
        for (Primitive p : scene.primitives()) {
            if (!(p instanceof Primitive.Text text) || !shown(p)) continue;
            double height = Math.rint(text.height() * 100) / 100;
            if (height < rules.leastText() - 0.005)
                small.computeIfAbsent(height, h -> new ArrayList<>()).add(p);
            else if (!isNear(HEIGHTS, height, 0.03))
                odd.computeIfAbsent(height, h -> new ArrayList<>()).add(p);
        }
        small.forEach((height, texts) -> find(
                Rule.TEXT_HEIGHT,
                number(texts.size(), "text is ", "texts are ") + height + " mm high, less than " + rules.leastText()
                        + " mm.",
                "Make the letters higher.",
                texts.size(),
                texts.get(0).box()));
        odd.forEach((height, texts) -> find(
                Rule.TEXT_SERIES,
                number(texts.size(), "text is ", "texts are ") + height
                        + " mm high, which is not in the series of ISO 3098-1.",
                "Choose 2.5, 3.5, 5, 7 or 10 mm.",
                texts.size(),
                texts.get(0).box()));
    }

    private void room() {
        TextRoom texts = TextRoom.of(scene);
        List<Primitive.Text> meeting = texts.meeting();
        if (!meeting.isEmpty()) {
            find(
                    Rule.TEXT_ROOM,
                    number(meeting.size(), "text is", "texts are") + " written over another one" + says(meeting) + ".",
                    "Move one of the two, or shorten it.",
                    meeting.size(),
                    meeting.get(0).box());
        }
        List<Primitive.Text> leaving = texts.leaving();
        if (!leaving.isEmpty()) {
            find(
                    Rule.TEXT_ROOM,
                    number(leaving.size(), "text runs", "texts run") + " out of its cell" + says(leaving) + ".",
                    "Narrow the letters, shorten it, or widen the cell.",
                    leaving.size(),
                    leaving.get(0).box());
        }
    }

    private static String says(List<Primitive.Text> texts) {
        return ": “" + Texts.shorten(texts.get(0).text(), 40) + "”" + (texts.size() > 1 ? " and others" : "");
    }

    private void widths() {
        Map<Double, List<Primitive>> odd = new TreeMap<>();
        for (Primitive p : scene.primitives()) {
            boolean line = p instanceof Primitive.Polyline || p instanceof Primitive.Arc;
            if (!line || !shown(p) || isNear(WIDTHS, p.style().weight(), 0.005)) continue;
            odd.computeIfAbsent(p.style().weight(), w -> new ArrayList<>()).add(p);
        }
        odd.forEach((width, lines) -> find(
                Rule.LINE_WIDTH,
                number(lines.size(), "line is ", "lines are ") + width
                        + " mm wide, which is not in the series of ISO 128-2.",
                "Choose 0.25, 0.35, 0.5 or 0.7 mm.",
                lines.size(),
                lines.get(0).box()));
    }

    private void layers() {
        if (rules.layers().isEmpty()) return;
        Map<String, List<Primitive>> other = new TreeMap<>();
        for (Primitive p : scene.primitives()) {
            String layer = p.style().layer();
            if (!rules.layers().contains(layer.toUpperCase(Locale.ROOT))) {
                other.computeIfAbsent(layer, l -> new ArrayList<>()).add(p);
            }
        }
        other.forEach((layer, on) -> find(
                Rule.LAYERS,
                "The layer “" + layer + "” is none of the house's.",
                "Move what is on it to "
                        + String.join(
                                ", ", rules.layers().stream().sorted().limit(4).toList()) + ".",
                on.size(),
                on.get(0).box()));
    }

    private void dimensions(DxfDrawing drawing, OptionalDouble scale) {
        for (Dimensions.Dimension d : Dimensions.of(drawing)) {
            if (d.typed().isBlank() || d.typed().contains("<>")) continue;
            Box box = Box.EMPTY.with(d.x(), d.y());
            OptionalDouble typed = Dimensions.number(d.typed());
            // A sheet drawn in its own millimetres measures the thing through the title block's scale.
            double own = d.measured() * d.factor();
            double scaled = scale.isPresent() ? own / scale.getAsDouble() : own;
            if (typed.isPresent()
                    && d.measured() > 0
                    && !agrees(typed.getAsDouble(), own)
                    && !agrees(typed.getAsDouble(), scaled)) {
                find(
                        Rule.DIMENSION_WRONG,
                        String.format(Locale.ROOT, "A dimension says “%s” where %.2f is drawn.", d.typed(), scaled),
                        "Draw it as it says, or let it show what it measures.",
                        1,
                        box);
            } else {
                find(
                        Rule.DIMENSION_OVERRIDDEN,
                        "A dimension shows the typed text “" + d.typed() + "”.",
                        "Let it show what it measures.",
                        1,
                        box);
            }
        }
    }

    private static boolean agrees(double typed, double measured) {
        return Math.abs(typed - measured) <= Math.max(0.051, measured * 0.001);
    }

    private record Drawn(Class<?> kind, String layer, List<Long> values) {}

    private void doubled() {
        Map<Drawn, Integer> seen = new HashMap<>();
        List<Primitive> twice = new ArrayList<>();
        for (Primitive p : scene.primitives()) {
            double[] values;
            if (p instanceof Primitive.Polyline line && line.points().length == 4) {
                double[] q = line.points();
                boolean turned = q[0] > q[2] || (q[0] == q[2] && q[1] > q[3]);
                values = turned ? new double[] {q[2], q[3], q[0], q[1]} : q;
            } else if (p instanceof Primitive.Arc arc) {
                values =
                        new double[] {arc.x(), arc.y(), arc.radius(), arc.sweep() >= 360 ? 0 : arc.from(), arc.sweep()};
            } else {
                continue;
            }
            List<Long> rounded =
                    Arrays.stream(values).mapToObj(v -> Math.round(v * 1000)).toList();
            if (seen.merge(new Drawn(p.getClass(), p.style().layer(), rounded), 1, Integer::sum) == 2) twice.add(p);
        }
        if (!twice.isEmpty()) {
            find(
                    Rule.DOUBLED,
                    number(twice.size(), "line is", "lines are") + " drawn twice in the same place.",
                    "Delete the second one.",
                    twice.size(),
                    first(twice));
        }
    }

    private void withoutLength() {
        List<Primitive> dots = new ArrayList<>();
        for (Primitive p : scene.primitives()) {
            if (p.source().type().equals("POINT")) continue;
            if (p instanceof Primitive.Polyline
                    && p.box().width() < 1e-9
                    && p.box().height() < 1e-9) dots.add(p);
        }
        if (!dots.isEmpty()) {
            find(
                    Rule.NO_LENGTH,
                    number(dots.size(), "line has", "lines have") + " no length.",
                    "Delete them.",
                    dots.size(),
                    first(dots));
        }
    }

    private void offSheet() {
        if (zones.format().isEmpty() || !Zones.of(extents).format().isEmpty()) return;
        Box edge = zones.sheet().grown(0.5);
        List<Primitive> off = new ArrayList<>();
        for (Primitive p : scene.primitives()) if (shown(p) && !edge.touches(p.box())) off.add(p);
        if (!off.isEmpty()) {
            find(
                    Rule.OFF_SHEET,
                    number(off.size(), "line or text lies", "lines and texts lie") + " off the sheet.",
                    "Delete what is left over, or bring it onto the sheet.",
                    off.size(),
                    Box.EMPTY);
        }
    }

    /** Only where the sheet has a parts list: a number in a circle means other things elsewhere. */
    private void balloons(DxfDrawing drawing) {
        PartsList list = PartsList.of(drawing, scene, zones.millimetre());
        if (list.lines().isEmpty()) return;
        list.lines().values().stream()
                .filter(line -> !list.balloons().containsKey(line.find()))
                .forEach(line -> find(
                        Rule.BALLOONS,
                        "Line " + line.find() + " of the parts list" + named(line) + " has no balloon.",
                        "Point a balloon at it, or take the line out."));
        list.balloons().forEach((number, boxes) -> {
            if (list.lines().containsKey(number)) return;
            find(
                    Rule.BALLOONS,
                    "The balloon " + number + " has no line in the parts list.",
                    "Add the line, or take the balloon out.",
                    boxes.size(),
                    boxes.get(0));
        });
    }

    private static String named(PartsList.PartLine line) {
        return line.number().isEmpty() ? "" : " (" + line.number() + ")";
    }

    private static Box first(List<Primitive> all) {
        return all.stream()
                .map(Primitive::box)
                .min(Comparator.comparingDouble(Box::minX).thenComparingDouble(Box::minY))
                .orElse(Box.EMPTY);
    }

    private void references(DxfDrawing drawing) {
        int missing = scene.notDrawn().getOrDefault("INSERT of a missing block", 0);
        if (missing > 0) {
            find(
                    Rule.MISSING_REFERENCE,
                    number(missing, "block is", "blocks are") + " shown that the file does not hold.",
                    "Put the block back, or delete what shows it.");
        }
    }

    private void unread() {
        for (String sentence : scene.said()) find(Rule.UNREAD, sentence, "Mend it in the program that wrote it.");
    }

    private boolean shown(Primitive p) {
        return scene.layers().getOrDefault(p.style().layer(), true);
    }

    private static boolean isNear(double[] series, double value, double by) {
        for (double step : series) if (Math.abs(step - value) <= by) return true;
        return false;
    }

    private static String number(int n, String one, String more) {
        return n + " " + (n == 1 ? one : more);
    }
}
