package mintshelf.demo.practice;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;

/**
 * What a demonstration changes on a DXF file of text: tags are set, put in and taken out; every other line stays as it was. Places
 * and lengths are in drawing units. Each change tells in a sentence what it did, or why it did nothing. O(tags) each.
 */
final class SheetEdit {
    /** Their points are no places on the sheet, or say nothing when one alone is moved. */
    private static final Set<String> STAY = Set.of("POLYLINE", "VIEWPORT", "HATCH", "SEQEND");

    /** How far around the end of a dimension its arrow and its line reach, in drawing units. */
    private static final double ARROW = 5;

    private static final double SAME = 1e-6;
    private static final Pattern LENGTH = Pattern.compile("(\\D*?)(\\d+(?:[.,]\\d+)?)(\\D*)");

    /** A tag: the line of its code as it stands, the code, the value. */
    private static final class Tag {
        final String codeLine;
        final int code;
        String value;

        Tag(String codeLine, int code, String value) {
            this.codeLine = codeLine;
            this.code = code;
            this.value = value;
        }

        double number() {
            return Double.parseDouble(value.strip());
        }
    }

    /** An entity: its tags from the one that begins it; the block in which it stands, empty on the sheet itself. */
    private record Entity(String type, int from, int to, String block) {}

    private final List<Tag> tags;
    private final String newLine;
    private final String rest;
    /** By how much the sheet enlarges: lengths that are given and told are those of the part. */
    private double scale = 1;

    private SheetEdit(List<Tag> tags, String newLine, String rest) {
        this.tags = tags;
        this.newLine = newLine;
        this.rest = rest;
    }

    /** Opens a file; binary ones are refused. */
    static Outcome<SheetEdit> of(byte[] bytes) {
        // Letters are not looked at: one byte, one char, and back again.
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        String newLine = text.contains("\r\n") ? "\r\n" : "\n";
        String[] lines = text.split(newLine, -1);
        List<Tag> tags = new ArrayList<>();
        int i = 0;
        for (; i + 1 < lines.length; i += 2) {
            String code = lines[i].strip();
            if (!code.matches("-?\\d{1,5}")) break;
            tags.add(new Tag(lines[i], Integer.parseInt(code), lines[i + 1]));
            if (code.equals("0") && lines[i + 1].strip().equals("EOF")) {
                i += 2;
                break;
            }
        }
        boolean ends =
                !tags.isEmpty() && tags.get(tags.size() - 1).value.strip().equals("EOF");
        if (!ends) {
            return Outcome.refused(
                    "practice.unread",
                    "The practice seat opens DXF files of text that are whole.",
                    "Choose a drawing of the demo.");
        }
        List<String> after = List.of(lines).subList(i, lines.length);
        return Outcome.granted(new SheetEdit(tags, newLine, String.join(newLine, after)));
    }

    /** Lengths are given in the part's own from now on; places stay those of the sheet. */
    SheetEdit at(double sheetScale) {
        scale = sheetScale > 0 ? sheetScale : 1;
        return this;
    }

    byte[] bytes() {
        StringBuilder text = new StringBuilder();
        for (Tag tag : tags) {
            text.append(tag.codeLine).append(newLine).append(tag.value).append(newLine);
        }
        return text.append(rest).toString().getBytes(StandardCharsets.ISO_8859_1);
    }

    /** Moves what lies in a window; lines that reach into it are stretched, and dimensions follow. */
    Outcome<String> pull(Box window, double byX, double byY) {
        double dx = byX * scale;
        double dy = byY * scale;
        int moved = 0;
        int followed = 0;
        for (Entity e : entities()) {
            if (!e.block().isEmpty() || STAY.contains(e.type())) continue;
            if (e.type().equals("DIMENSION")) {
                if (follow(e, window, dx, dy)) followed++;
            } else if (move(e, window, dx, dy)) {
                moved++;
            }
        }
        if (moved + followed == 0) return nothing("Nothing lies in the window.");
        return Outcome.granted(
                "Pulled " + moved + (moved == 1 ? " thing" : " things") + " by " + number(byX) + ", " + number(byY)
                        + (followed == 0
                                ? "."
                                : "; " + followed + (followed == 1 ? " dimension follows." : " dimensions follow.")));
    }

    private boolean move(Entity e, Box window, double dx, double dy) {
        boolean whole =
                e.type().equals("TEXT") || e.type().equals("MTEXT") || e.type().equals("ATTRIB");
        boolean moved = false;
        for (int code = 10; code <= 13; code++) {
            if (whole && code > 10 && !moved) break;
            for (int i = e.from(); i < e.to(); i++) {
                if (tags.get(i).code != code) continue;
                int y = next(e, i, code + 10);
                if (y < 0) continue;
                boolean inside =
                        within(window, tags.get(i).number(), tags.get(y).number());
                if (!(whole && moved) && !inside) continue;
                shift(i, dx);
                shift(y, dy);
                moved = true;
            }
        }
        return moved;
    }

    /** A dimension whose ends lie in the window: ends, line, arrows and text go along, and it says the new length. */
    private boolean follow(Entity e, Box window, double dx, double dy) {
        int kind = first(e, 70).map(t -> (int) t.number() & 7).orElse(0);
        if (kind > 1) return false;
        double before = measured(e, kind);
        double angle = kind == 0
                ? Math.toRadians(first(e, 50).map(Tag::number).orElse(0.0))
                : Math.atan2(at(e, 24) - at(e, 23), at(e, 14) - at(e, 13));
        double along = dx * Math.cos(angle) + dy * Math.sin(angle);
        List<Double> ends = new ArrayList<>();
        for (int code = 13; code <= 14; code++) {
            double x = at(e, code);
            double y = at(e, code + 10);
            if (!within(window, x, y)) continue;
            ends.add(x * Math.cos(angle) + y * Math.sin(angle));
            first(e, code).orElseThrow().value = number(x + dx);
            first(e, code + 10).orElseThrow().value = number(y + dy);
        }
        if (ends.isEmpty()) return false;
        double share = ends.size() == 2 ? 1 : 0.5;
        double cx = Math.cos(angle) * along;
        double cy = Math.sin(angle) * along;
        nudge(e, 11, cx * share, cy * share);
        if (near(e, 10, angle, ends)) nudge(e, 10, cx, cy);
        double now = measured(e, kind);
        first(e, 42).ifPresent(t -> t.value = number(now));
        first(e, 1).ifPresent(t -> t.value = said(t.value, before, now));
        String block = first(e, 2).map(t -> t.value.strip()).orElse("");
        for (Entity part : entities()) {
            if (part.block().isEmpty() || !part.block().equals(block)) continue;
            boolean text = part.type().equals("TEXT") || part.type().equals("MTEXT");
            if (text) first(part, 1).ifPresent(t -> t.value = said(t.value, before, now));
            for (int code = 10; code <= 13; code++) {
                if (text) nudge(part, code, cx * share, cy * share);
                else if (near(part, code, angle, ends)) nudge(part, code, cx, cy);
            }
        }
        return true;
    }

    private double measured(Entity e, int kind) {
        double x = at(e, 14) - at(e, 13);
        double y = at(e, 24) - at(e, 23);
        if (kind == 1) return Math.hypot(x, y);
        double angle = Math.toRadians(first(e, 50).map(Tag::number).orElse(0.0));
        return Math.abs(x * Math.cos(angle) + y * Math.sin(angle));
    }

    /** A dimension's text that is one length, in whatever scale, with the new length; other texts stay as they are. */
    private static String said(String text, double before, double now) {
        Matcher length = LENGTH.matcher(text.strip());
        if (!length.matches() || before < SAME) return text;
        double shown = Double.parseDouble(length.group(2).replace(',', '.')) * now / before;
        return length.group(1) + number(Math.round(shown * 10) / 10.0) + length.group(3);
    }

    private boolean near(Entity e, int code, double angle, List<Double> ends) {
        if (first(e, code).isEmpty() || first(e, code + 10).isEmpty()) return false;
        double on = at(e, code) * Math.cos(angle) + at(e, code + 10) * Math.sin(angle);
        return ends.stream().anyMatch(end -> Math.abs(end - on) < ARROW);
    }

    private void nudge(Entity e, int code, double dx, double dy) {
        first(e, code).ifPresent(t -> t.value = number(t.number() + dx));
        first(e, code + 10).ifPresent(t -> t.value = number(t.number() + dy));
    }

    /** Gives the hole at a place another diameter. */
    Outcome<String> resize(double x, double y, double reach, double diameter) {
        if (!(diameter > 0)) return nothing("A hole has a diameter.");
        Optional<Entity> hole = hole(x, y, reach);
        if (hole.isEmpty()) return nothing("There is no circle at that place.");
        Tag radius = first(hole.get(), 40).orElseThrow();
        String before = number(radius.number() * 2 / scale);
        radius.value = number(diameter / 2 * scale);
        return Outcome.granted("The hole of " + before + " has " + number(diameter) + " now.");
    }

    /** Puts a hole at a place, on the layer of the other ones. */
    Outcome<String> drill(double x, double y, double diameter) {
        if (!(diameter > 0)) return nothing("A hole has a diameter.");
        String layer = entities().stream()
                .filter(e -> e.block().isEmpty() && e.type().equals("CIRCLE"))
                .flatMap(e -> first(e, 8).stream())
                .map(t -> t.value)
                .findFirst()
                .orElse("0");
        int end = -1;
        boolean inEntities = false;
        for (int i = 0; i < tags.size(); i++) {
            if (tags.get(i).code == 2 && tags.get(i).value.strip().equals("ENTITIES")) inEntities = true;
            if (inEntities && tags.get(i).code == 0 && tags.get(i).value.strip().equals("ENDSEC")) {
                end = i;
                break;
            }
        }
        if (end < 0) return nothing("The file has no section of entities.");
        List<Tag> circle = new ArrayList<>();
        circle.add(new Tag("  0", 0, "CIRCLE"));
        boolean handles = tags.stream().anyMatch(t -> t.code == 5);
        if (handles) circle.add(new Tag("  5", 5, nextHandle()));
        boolean marked =
                tags.stream().anyMatch(t -> t.code == 100 && t.value.strip().equals("AcDbEntity"));
        if (marked) circle.add(new Tag("100", 100, "AcDbEntity"));
        circle.add(new Tag("  8", 8, layer));
        if (marked) circle.add(new Tag("100", 100, "AcDbCircle"));
        circle.add(new Tag(" 10", 10, number(x)));
        circle.add(new Tag(" 20", 20, number(y)));
        circle.add(new Tag(" 40", 40, number(diameter / 2 * scale)));
        tags.addAll(end, circle);
        return Outcome.granted("Drilled a hole of " + number(diameter) + ".");
    }

    private String nextHandle() {
        long highest = 0;
        Tag seed = null;
        for (int i = 0; i < tags.size(); i++) {
            Tag t = tags.get(i);
            if (t.code != 5 || !t.value.strip().matches("[0-9A-Fa-f]{1,15}")) continue;
            if (i > 0 && tags.get(i - 1).code == 9 && tags.get(i - 1).value.contains("HANDSEED")) seed = t;
            highest = Math.max(highest, Long.parseLong(t.value.strip(), 16));
        }
        if (seed != null) seed.value = Long.toHexString(highest + 2).toUpperCase(Locale.ROOT);
        return Long.toHexString(highest + 1).toUpperCase(Locale.ROOT);
    }

    /** Takes the hole at a place out. */
    Outcome<String> plug(double x, double y, double reach) {
        Optional<Entity> hole = hole(x, y, reach);
        if (hole.isEmpty()) return nothing("There is no circle at that place.");
        String before = number(first(hole.get(), 40).orElseThrow().number() * 2 / scale);
        tags.subList(hole.get().from(), hole.get().to()).clear();
        return Outcome.granted("The hole of " + before + " is plugged.");
    }

    /** Gives the text at a place other words. */
    Outcome<String> retext(double x, double y, double reach, String words) {
        String line = words.replaceAll("\\p{Cntrl}", " ").strip();
        if (line.isEmpty()) return nothing("The new words are empty.");
        record Near(Entity entity, double distance) {}
        Optional<Near> text = entities().stream()
                .filter(e -> e.block().isEmpty() && Set.of("TEXT", "MTEXT").contains(e.type()))
                .filter(e -> first(e, 1).isPresent())
                .map(e -> {
                    double height = first(e, 40).map(Tag::number).orElse(2.5);
                    double wide = first(e, 1).orElseThrow().value.length() * height * 0.7;
                    double over = Math.max(0, Math.max(at(e, 10) - x, x - at(e, 10) - wide));
                    double beside = Math.max(0, Math.max(at(e, 20) - y, y - at(e, 20) - height));
                    return new Near(e, Math.hypot(over, beside));
                })
                .filter(n -> n.distance() <= reach)
                .min(Comparator.comparingDouble(Near::distance));
        if (text.isEmpty()) return nothing("There is no text at that place.");
        Tag tag = first(text.get().entity(), 1).orElseThrow();
        String before = tag.value;
        StringBuilder safe = new StringBuilder();
        // What the file's code page may lack is written as the format's own escape.
        line.chars()
                .forEach(c ->
                        safe.append(c < 128 ? String.valueOf((char) c) : String.format(Locale.ROOT, "\\U+%04X", c)));
        tag.value = safe.toString();
        return Outcome.granted("“" + before.strip() + "” says “" + line + "” now.");
    }

    /** The smallest circle around a place, or the one whose line runs within reach of it. */
    private Optional<Entity> hole(double x, double y, double reach) {
        return entities().stream()
                .filter(e -> e.block().isEmpty() && e.type().equals("CIRCLE"))
                .filter(e -> Math.hypot(at(e, 10) - x, at(e, 20) - y) <= at(e, 40) + reach)
                .min(Comparator.comparingDouble(e -> at(e, 40)));
    }

    private static Outcome<String> nothing(String why) {
        return Outcome.refused("practice.nothing", why, "Nothing was changed.");
    }

    private static boolean within(Box box, double x, double y) {
        return x >= box.minX() - SAME && x <= box.maxX() + SAME && y >= box.minY() - SAME && y <= box.maxY() + SAME;
    }

    private void shift(int tag, double by) {
        tags.get(tag).value = number(tags.get(tag).number() + by);
    }

    private int next(Entity e, int from, int code) {
        for (int i = from + 1; i < Math.min(e.to(), from + 3); i++) if (tags.get(i).code == code) return i;
        return -1;
    }

    private Optional<Tag> first(Entity e, int code) {
        for (int i = e.from() + 1; i < e.to(); i++) if (tags.get(i).code == code) return Optional.of(tags.get(i));
        return Optional.empty();
    }

    private double at(Entity e, int code) {
        return first(e, code).map(Tag::number).orElse(0.0);
    }

    private List<Entity> entities() {
        List<Entity> found = new ArrayList<>();
        String section = "";
        String block = "";
        int from = -1;
        String type = "";
        for (int i = 0; i < tags.size(); i++) {
            Tag tag = tags.get(i);
            if (tag.code != 0) {
                if (type.equals("SECTION") && tag.code == 2) section = tag.value.strip();
                if (type.equals("BLOCK") && tag.code == 2 && block.isEmpty()) block = tag.value.strip();
                continue;
            }
            boolean drawn = section.equals("ENTITIES") || (section.equals("BLOCKS") && !block.isEmpty());
            if (from >= 0 && drawn && !Set.of("SECTION", "BLOCK").contains(type)) {
                found.add(new Entity(type, from, i, section.equals("ENTITIES") ? "" : block));
            }
            from = i;
            type = tag.value.strip();
            if (type.equals("BLOCK") || type.equals("ENDBLK")) block = "";
        }
        return found;
    }

    private static String number(double value) {
        String text =
                String.format(Locale.ROOT, "%.6f", value).replaceAll("0+$", "").replaceAll("\\.$", "");
        return text.equals("-0") ? "0" : text;
    }
}
