package mintshelf.companion;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.check.RuleFile;
import mintshelf.core.drawing.check.SheetCheck;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.Comparison.Difference;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DrawingFacts;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.pdf.PdfPicture;
import mintshelf.core.drawing.pdf.PdfWriter;
import mintshelf.core.drawing.pdf.SystemFonts;
import mintshelf.core.drawing.svg.CompareSvg;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.drawing.titleblock.SheetScale;
import mintshelf.core.stamp.SheetStamp;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Commands on a drawing. */
@Command(
        name = "drawing",
        subcommands = {
            DrawingCommands.Facts.class,
            DrawingCommands.Compare.class,
            DrawingCommands.Check.class,
            DrawingCommands.Render.class,
            DrawingCommands.Stamp.class
        })
final class DrawingCommands {
    /** Opens a drawing, or ends the command with the reason. */
    static DxfDrawing open(Path file) {
        return granted(file, DxfDrawing.read(bytes(file)));
    }

    static byte[] bytes(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new Unreadable(file + ": there is no such file");
        } catch (IOException e) {
            throw new Unreadable(file + ": " + e.getMessage());
        } catch (OutOfMemoryError e) {
            throw new Unreadable(file + ": it is larger than the memory of this program");
        }
    }

    /** What changed between two drawings; nothing where one cannot be drawn. */
    static Optional<Comparison> compared(DxfDrawing before, DxfDrawing after) {
        return before.scene()
                .toOptional()
                .flatMap(old -> after.scene().toOptional().map(now -> compared(old, now, after)));
    }

    private static Comparison compared(Scene old, Scene now, DxfDrawing after) {
        double scale = SheetScale.of(SheetMap.readyMade().read(after).getOrDefault("scale", ""))
                .orElse(1);
        return SheetCompare.compare(old, now, scale);
    }

    static <T> T granted(Path file, Outcome<T> outcome) {
        if (outcome instanceof Outcome.Granted<T> granted) return granted.value();
        throw new Unreadable(file + ": " + outcome.refusal().orElseThrow().reason());
    }

    static List<Double> numbers(Box box) {
        return List.of(box.minX(), box.minY(), box.maxX(), box.maxY());
    }

    /** What the drawing says. */
    @Command(name = "facts", description = "what the drawing says")
    static final class Facts implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Option(names = "--json")
        private boolean json;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            DxfDrawing drawing = open(file);
            DrawingFacts facts = DrawingFacts.of(drawing);
            Map<String, String> title = SheetMap.readyMade().read(drawing);
            PrintWriter out = spec.commandLine().getOut();
            if (json) Json.print(out, members(facts, title));
            else words(facts, title, out);
            out.flush();
            return 0;
        }

        private static Map<String, Object> members(DrawingFacts facts, Map<String, String> title) {
            Map<String, Object> all = new LinkedHashMap<>();
            all.put("format", "DXF");
            all.put("binary", facts.binary());
            all.put("version", facts.version());
            all.put("encoding", facts.encoding());
            all.put("units", facts.units());
            all.put("layers", facts.layers());
            all.put("blocks", facts.blocks());
            all.put("layouts", facts.layouts());
            all.put("entities", facts.entities());
            all.put("paperEntities", facts.paperEntities());
            Map<String, Object> extents = new LinkedHashMap<>();
            Box box = facts.extents();
            if (!box.isEmpty()) {
                extents.put("minX", box.minX());
                extents.put("minY", box.minY());
                extents.put("maxX", box.maxX());
                extents.put("maxY", box.maxY());
            }
            all.put("extents", extents);
            all.put("texts", facts.texts());
            all.put(
                    "attributes",
                    facts.attributes().stream()
                            .map(a -> Json.members("block", a.block(), "tag", a.tag(), "value", a.value()))
                            .toList());
            all.put(
                    "references",
                    facts.references().entrySet().stream()
                            .map(r -> Json.members("block", r.getKey(), "path", r.getValue()))
                            .toList());
            all.put("titleBlock", title);
            all.put("notDrawn", facts.notDrawn());
            all.put("said", facts.said());
            return all;
        }

        private static void words(DrawingFacts facts, Map<String, String> title, PrintWriter out) {
            title.forEach((name, value) -> out.println(name + ": " + value));
            Box box = facts.extents();
            if (!box.isEmpty()) {
                out.println(String.format(Locale.ROOT, "size: %.1f x %.1f %s", box.width(), box.height(), facts.units())
                        .strip());
            }
            out.println("entities: "
                    + facts.entities().values().stream().mapToInt(n -> n).sum());
            facts.notDrawn().forEach((type, n) -> out.println("not drawn: " + n + " " + type));
            facts.said().forEach(out::println);
        }
    }

    /** What the rules say of a drawing; 1 when a binding rule is broken, or any with no rule file. */
    @Command(name = "check", description = "what the rules say")
    static final class Check implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Option(names = "--rules", description = "a file of rules, see docs/formats.md")
        private Optional<Path> rules = Optional.empty();

        @Option(names = "--json")
        private boolean json;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            CheckRules held = CheckRules.hints();
            if (rules.isPresent()) {
                held = granted(rules.get(), RuleFile.read(new String(bytes(rules.get()), StandardCharsets.UTF_8)));
            }
            DxfDrawing drawing = open(file);
            List<Finding> found =
                    SheetCheck.check(drawing, held, SheetMap.readyMade().read(drawing), Map.of(), Set.of());
            PrintWriter out = spec.commandLine().getOut();
            if (json) {
                Json.print(
                        out,
                        Map.of("findings", found.stream().map(Check::members).toList()));
            } else {
                if (found.isEmpty()) out.println("Every rule is kept.");
                for (Finding f : found) {
                    out.println((f.isBinding() ? "binding" : "hint") + (f.zone().isEmpty() ? "" : " " + f.zone()) + ": "
                            + f.says() + " " + f.remedy());
                }
            }
            out.flush();
            boolean no = rules.isPresent() ? found.stream().anyMatch(Finding::isBinding) : !found.isEmpty();
            return no ? 1 : 0;
        }

        private static Map<String, Object> members(Finding f) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("rule", f.rule().name());
            one.put("severity", f.severity().name().toLowerCase(Locale.ROOT));
            one.put("count", f.count());
            one.put("zone", f.zone());
            one.put("box", f.box().isEmpty() ? List.of() : numbers(f.box()));
            one.put("says", f.says());
            one.put("remedy", f.remedy());
            return one;
        }
    }

    /** A picture of a drawing. */
    @Command(name = "render", description = "a picture of it: OUT ends in .svg, .pdf or .png")
    static final class Render implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Parameters(index = "1")
        private Path target;

        @Option(names = "--width", defaultValue = "1600", description = "of a PNG, in pixels")
        private int width;

        @Option(names = "--layout", description = "Model or the name of a layout")
        private Optional<String> layout = Optional.empty();

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            DxfDrawing drawing = open(file);
            Scene scene = granted(file, drawing.scene(layout.orElse(drawing.sheet()), 0));
            String name = target.toString().toLowerCase(Locale.ROOT);
            String title = SheetMap.readyMade().read(drawing).getOrDefault("title", String.valueOf(file.getFileName()));
            if (name.endsWith(".svg")) {
                Files.writeString(target, SvgWriter.write(scene, title), StandardCharsets.UTF_8);
            } else if (name.endsWith(".pdf") || name.endsWith(".png")) {
                byte[] pdf = PdfWriter.write(scene, fonts(), title, "").bytes();
                Files.write(
                        target,
                        name.endsWith(".pdf") ? pdf : PdfPicture.png(pdf, Math.max(16, Math.min(width, 20_000))));
            } else {
                spec.commandLine().getErr().println(target + ": the picture's name ends in .svg, .pdf or .png");
                return 2;
            }
            List<String> lacking = new ArrayList<>(scene.said());
            scene.notDrawn().forEach((type, n) -> lacking.add("Not drawn: " + n + " " + type + "."));
            lacking.forEach(spec.commandLine().getErr()::println);
            return 0;
        }
    }

    /** What changed between two drawings; 1 when something did. */
    @Command(name = "compare", description = "what changed")
    static final class Compare implements Callable<Integer> {
        @Parameters(index = "0")
        private Path old;

        @Parameters(index = "1")
        private Path now;

        @Option(names = "--json")
        private boolean json;

        @Option(names = "--svg", description = "a picture of both, one over the other")
        private Optional<Path> svg = Optional.empty();

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            DxfDrawing before = open(old);
            DxfDrawing after = open(now);
            Scene oldScene = granted(old, before.scene());
            Scene newScene = granted(now, after.scene());
            Comparison found = compared(oldScene, newScene, after);
            if (svg.isPresent()) {
                Files.writeString(svg.get(), CompareSvg.whole(oldScene, newScene, found), StandardCharsets.UTF_8);
            }
            PrintWriter out = spec.commandLine().getOut();
            if (json) Json.print(out, members(found));
            else words(found, out);
            out.flush();
            return found.isEmpty() ? 0 : 1;
        }

        private static Map<String, Object> members(Comparison found) {
            Map<String, Object> all = new LinkedHashMap<>();
            all.put("old", Map.of("primitives", found.old()));
            all.put("new", Map.of("primitives", found.now()));
            all.put("same", found.same());
            all.put("changed", found.changed());
            all.put("shifted", found.shifted());
            all.put("removed", found.removed());
            all.put("added", found.added());
            List<Map<String, Object>> differences = new ArrayList<>();
            for (Difference d : found.differences()) {
                Map<String, Object> one = new LinkedHashMap<>();
                one.put("number", d.number());
                one.put("kind", word(d.kind()));
                one.put("zone", d.zone());
                one.put("box", numbers(d.box()));
                one.put("says", d.says());
                one.put("clouded", d.clouded());
                differences.add(one);
            }
            all.put("differences", differences);
            return all;
        }

        /** As the counts are named. */
        private static String word(Comparison.Kind kind) {
            return switch (kind) {
                case CHANGED -> "changed";
                case SHIFTED -> "shifted";
                case ONLY_IN_OLD -> "removed";
                case ONLY_IN_NEW -> "added";
            };
        }

        private static void words(Comparison found, PrintWriter out) {
            if (found.isEmpty()) out.println("No difference.");
            for (Difference d : found.differences()) {
                out.println(d.number() + (d.zone().isEmpty() ? "" : " " + d.zone()) + " "
                        + d.kind().says() + ": " + d.says() + (d.isUnmarked() ? " (without a cloud)" : ""));
            }
        }
    }

    /** Title block values written, everything else byte for byte. */
    @Command(name = "stamp", description = "title block values written, everything else byte for byte")
    static final class Stamp implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Parameters(index = "1")
        private Path target;

        @Option(names = "--set", required = true, description = "TAG=VALUE")
        private Map<String, String> values = new LinkedHashMap<>();

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            byte[] bytes = bytes(file);
            DxfDrawing drawing = granted(file, DxfDrawing.read(bytes));
            List<SheetMap.Field> fields = new ArrayList<>();
            values.keySet().forEach(tag -> fields.add(new SheetMap.Field(tag, tag, SheetMap.Way.WRITTEN)));
            SheetMap map = new SheetMap("command line", SheetMap.EVERY_BLOCK, "", fields, Optional.empty());
            List<String> found =
                    map.sites(drawing).stream().map(SheetMap.Site::tag).toList();
            SheetStamp.Stamped stamped = granted(file, SheetStamp.write(bytes, map, values));
            Files.write(target, stamped.bytes());
            PrintWriter out = spec.commandLine().getOut();
            stamped.edits().forEach(e -> out.println(e.tag() + ": " + e.before() + " → " + e.after()));
            out.flush();
            List<String> missing =
                    values.keySet().stream().filter(tag -> !found.contains(tag)).toList();
            missing.forEach(tag -> spec.commandLine().getErr().println(file + ": it has no attribute " + tag));
            return missing.isEmpty() ? 0 : 1;
        }
    }

    static List<byte[]> fonts() throws IOException {
        List<byte[]> fonts = new ArrayList<>();
        try (InputStream in = DrawingCommands.class.getResourceAsStream("/fonts/dejavu-sans.ttf")) {
            if (in == null) throw new IOException("the font is missing from the program");
            fonts.add(in.readAllBytes());
        }
        fonts.addAll(SystemFonts.below(Path.of("/usr/share/fonts")));
        return fonts;
    }
}
