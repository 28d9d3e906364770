package mintshelf.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.compare.Kept;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Following;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Pins;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Tool;

/** Reading drawings to scenes, against a parser that only parses; comparing scenes. */
final class DrawingBench {
    private static final int TURNS = 7;

    private DrawingBench() {}

    /** A drawing of lines, circles, arcs, texts and polylines on ten layers. */
    static byte[] drawing(int entities, long seed) {
        Random random = new Random(seed);
        StringBuilder out = new StringBuilder(entities * 150);
        out.append("0\r\nSECTION\r\n2\r\nHEADER\r\n9\r\n$ACADVER\r\n1\r\nAC1015\r\n0\r\nENDSEC\r\n");
        out.append("0\r\nSECTION\r\n2\r\nTABLES\r\n0\r\nTABLE\r\n2\r\nLAYER\r\n");
        for (int i = 0; i < 10; i++)
            out.append("0\r\nLAYER\r\n2\r\nL" + i + "\r\n70\r\n0\r\n62\r\n" + (i + 1) + "\r\n6\r\nCONTINUOUS\r\n");
        out.append("0\r\nENDTAB\r\n0\r\nENDSEC\r\n0\r\nSECTION\r\n2\r\nENTITIES\r\n");
        for (int i = 0; i < entities; i++) entity(out, i, random);
        return out.append("0\r\nENDSEC\r\n0\r\nEOF\r\n").toString().getBytes(StandardCharsets.US_ASCII);
    }

    private static void entity(StringBuilder out, int i, Random random) {
        double x = random.nextDouble() * 1189;
        double y = random.nextDouble() * 841;
        int kind = i % 10;
        String type = kind < 5 ? "LINE" : kind < 6 ? "CIRCLE" : kind < 7 ? "ARC" : kind < 8 ? "TEXT" : "LWPOLYLINE";
        tag(out, 0, type);
        tag(out, 5, Integer.toHexString(i + 256).toUpperCase(Locale.ROOT));
        tag(out, 100, "AcDbEntity");
        tag(out, 8, "L" + i % 10);
        if (type.equals("LWPOLYLINE")) {
            tag(out, 90, "6");
            tag(out, 70, "0");
            for (int k = 0; k < 6; k++) point(out, 10, x + random.nextDouble() * 10, y + random.nextDouble() * 10);
            return;
        }
        point(out, 10, x, y);
        switch (type) {
            case "LINE" -> point(out, 11, x + random.nextDouble() * 20, y + random.nextDouble() * 20);
            case "TEXT" -> {
                tag(out, 40, "2.5");
                tag(out, 1, "T" + i);
            }
            default -> {
                tag(out, 40, number(1 + random.nextDouble() * 5));
                if (type.equals("ARC")) {
                    tag(out, 50, number(random.nextDouble() * 360));
                    tag(out, 51, number(random.nextDouble() * 360));
                }
            }
        }
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, "%.6f", value);
    }

    private static void tag(StringBuilder out, int code, String value) {
        out.append(String.format(Locale.ROOT, "%3d", code))
                .append("\r\n")
                .append(value)
                .append("\r\n");
    }

    private static void point(StringBuilder out, int code, double x, double y) {
        tag(out, code, number(x));
        tag(out, code + 10, number(y));
    }

    private static Scene read(byte[] bytes) {
        DxfDrawing drawing = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes)).value();
        return ((Outcome.Granted<Scene>) drawing.scene(DxfDrawing.MODEL, 0)).value();
    }

    private static double median(double[] values) {
        Arrays.sort(values);
        return values[values.length / 2];
    }

    private static double seconds(Runnable work) {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e9;
    }

    /** Bytes to scene on one core, in turns with the peer; and how the cost grows. */
    static void reading() {
        for (int entities : new int[] {10_000, 100_000, 1_000_000}) {
            byte[] bytes = drawing(entities, 7);
            double[] times = new double[TURNS];
            for (int i = 0; i < 2; i++) read(bytes);
            for (int i = 0; i < TURNS; i++) times[i] = seconds(() -> read(bytes));
            double middle = median(times);
            Bench.say(
                    "%,d entities, %.1f MB: %.0f ms, %.0f MB/s (target 50), %.2f µs an entity",
                    entities, bytes.length / 1e6, middle * 1e3, bytes.length / 1e6 / middle, middle * 1e6 / entities);
            if (entities == 100_000) peer(bytes, middle);
        }
    }

    /** {@code dxf-parser} from npm on the same file: it parses, and draws nothing. Left out where there is no Node. */
    private static void peer(byte[] bytes, double ours) {
        try {
            Path folder = Files.createTempDirectory("mint-shelf-peer");
            Path file = Files.write(folder.resolve("a.dxf"), bytes);
            Path script = Files.writeString(
                    folder.resolve("peer.js"),
                    "const P=require('dxf-parser');const t=require('fs').readFileSync('" + file
                            + "','utf8');const C=P.default||P.DxfParser||P;"
                            + "const ms=[];for(let i=0;i<5;i++){const s=process.hrtime.bigint();new C().parseSync(t);ms.push(Number(process.hrtime.bigint()-s)/1e9);}"
                            + "ms.sort((a,b)=>a-b);console.log(ms[2]);");
            if (run(folder, "npm", "install", "--silent", "--no-audit", "--no-fund", "dxf-parser@1.1.2")
                    .isEmpty()) {
                Bench.say("the peer could not be fetched; no ratio");
                return;
            }
            Optional<String> said = run(folder, "node", script.toString());
            if (said.isEmpty()) return;
            double theirs = Double.parseDouble(said.get().strip());
            Bench.say(
                    "the peer parses the same file in %.0f ms: we are %.1f times as fast (target 3)",
                    theirs * 1e3, theirs / ours);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Optional<String> run(Path folder, String... command) {
        try {
            Process process = new ProcessBuilder(command)
                    .directory(folder.toFile())
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return process.waitFor(120, TimeUnit.SECONDS) && process.exitValue() == 0
                    ? Optional.of(said)
                    : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    /** A sheet against itself with one in a hundred changed, and how the cost grows. */
    static void comparing() {
        for (int count : new int[] {10_000, 100_000, 1_000_000}) {
            Scene old = read(drawing(count, 7));
            Scene now = changed(old);
            Comparison found = SheetCompare.compare(old, now);
            double[] times = new double[TURNS];
            for (int i = 0; i < TURNS; i++) times[i] = seconds(() -> SheetCompare.compare(old, now));
            Bench.say(
                    "%,d against %,d: %.0f ms%s, %d differences",
                    old.primitives().size(),
                    now.primitives().size(),
                    median(times) * 1e3,
                    count == 100_000 ? " (target 1500)" : "",
                    found.differences().size());
        }
    }

    /** Marks that follow their sheet to the next version: the comparison is made once, every mark asks it. */
    static void following() {
        Scene old = read(drawing(100_000, 7));
        Scene now = changed(old);
        double[] compared = new double[TURNS];
        double[] followed = new double[TURNS];
        List<Mark> marks = new ArrayList<>();
        Random random = new Random(3);
        while (marks.size() < 500) {
            Primitive p = old.primitives().get(random.nextInt(old.primitives().size()));
            double x = p.box().middleX();
            double y = p.box().middleY();
            Tool tool = marks.size() % 2 == 0 ? Tool.CLOUD : Tool.ARROW_NOTE;
            Mark raw = Mark.read(
                            tool,
                            List.of(List.of(new Point(x - 6, y - 6), new Point(x + 6, y + 6))),
                            "",
                            new Look(Colour.BRICK, 3.5),
                            1,
                            old.extents())
                    .orElseThrow(r -> new IllegalStateException(r.says()));
            marks.add(Pins.pin(raw, old));
        }
        for (int i = -2; i < TURNS; i++) {
            Kept[] kept = new Kept[1];
            double first = seconds(() -> kept[0] = Kept.between(old, now, 1));
            double then = seconds(() -> marks.forEach(m -> Following.follow(m, kept[0])));
            if (i < 0) continue;
            compared[i] = first;
            followed[i] = then;
        }
        Bench.say(
                "500 marks followed through a comparison of 100,000: %.1f ms (asked: under 200), after %.0f ms for the comparison",
                median(followed) * 1e3, median(compared) * 1e3);
    }

    private static Scene changed(Scene scene) {
        List<Primitive> all = new ArrayList<>();
        for (int i = 0; i < scene.primitives().size(); i++) {
            Primitive p = scene.primitives().get(i);
            if (i % 100 == 3 && p instanceof Primitive.Polyline line) {
                double[] points = line.points().clone();
                points[0] += 1.5;
                all.add(new Primitive.Polyline(line.source(), line.style(), points, line.closed()));
            } else if (i % 500 == 5) {
                all.add(new Primitive.Arc(new Style("L1", Style.INK, 0.25, List.of()), i % 1189, i % 841, 3.3, 0, 360));
            } else {
                all.add(p);
            }
        }
        return new Scene(all, scene.layers(), Map.of(), List.of());
    }
}
