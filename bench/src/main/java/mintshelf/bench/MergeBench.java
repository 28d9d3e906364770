package mintshelf.bench;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.SheetCompare;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.merge.ThreeWay;

/** Three sheets held against each other, and what goes over written, against comparing two of them. */
final class MergeBench {
    private static final int TURNS = 7;

    private MergeBench() {}

    /** Lines all over a sheet; every so many of them is longer. */
    private static DxfDrawing sheet(int lines, int every, int from) {
        Random random = new Random(7);
        StringBuilder out = new StringBuilder(lines * 90)
                .append("0\r\nSECTION\r\n2\r\nHEADER\r\n9\r\n$ACADVER\r\n1\r\nAC1009\r\n0\r\nENDSEC\r\n")
                .append("0\r\nSECTION\r\n2\r\nENTITIES\r\n");
        for (int i = 0; i < lines; i++) {
            double x = random.nextInt(1_189_000) / 1000.0;
            double y = random.nextInt(841_000) / 1000.0;
            double length = i % every == from ? 14 : 10;
            out.append("0\r\nLINE\r\n8\r\n0\r\n10\r\n" + x + "\r\n20\r\n" + y + "\r\n11\r\n" + (x + length)
                    + "\r\n21\r\n" + y + "\r\n");
        }
        byte[] bytes = out.append("0\r\nENDSEC\r\n0\r\nEOF\r\n").toString().getBytes(StandardCharsets.US_ASCII);
        return DxfDrawing.read(bytes).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static Scene scene(DxfDrawing drawing) {
        return drawing.scene().orElseThrow(r -> new IllegalStateException(r.says()));
    }

    static void merge() {
        for (int lines : new int[] {25_000, 100_000}) {
            DxfDrawing base = sheet(lines, Integer.MAX_VALUE, -1);
            DxfDrawing theirs = sheet(lines, 500, 3);
            DxfDrawing mine = sheet(lines, 500, 250);
            double[] compared = new double[TURNS];
            double[] held = new double[TURNS];
            double[] written = new double[TURNS];
            long goes = 0;
            for (int i = -2; i < TURNS; i++) {
                long start = System.nanoTime();
                SheetCompare.compare(scene(base), scene(theirs));
                long middle = System.nanoTime();
                ThreeWay three = ThreeWay.of(base, theirs, mine).orElseThrow(r -> new IllegalStateException(r.says()));
                long end = System.nanoTime();
                goes = three.count(ThreeWay.Fate.GOES);
                List<Integer> all =
                        three.rows().stream().map(r -> r.difference().number()).toList();
                Outcome<byte[]> bytes = three.write(all);
                if (bytes.refusal().isPresent())
                    throw new IllegalStateException(bytes.refusal().get().says());
                if (i < 0) continue;
                compared[i] = (middle - start) / 1e9;
                held[i] = (end - middle) / 1e9;
                written[i] = (System.nanoTime() - end) / 1e9;
            }
            Arrays.sort(compared);
            double two = Bench.percentile(compared, 0.5);
            double three = Bench.percentile(held, 0.5);
            Bench.say(
                    "%d lines: %d differences held against a third sheet in %.2f s, %.1f times comparing two (%.2f s); written and proved in %.2f s",
                    lines, goes, three, three / two, two, Bench.percentile(written, 0.5));
        }
    }
}
