package mintshelf.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.zip.CRC32;
import mintshelf.core.base.Outcome;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;

/** Reading the structure of models against one pass over their bytes; questions on a graph of a million uses. */
final class ModelBench {
    private static final int TURNS = 5;
    private static final String HEAD = """
            ISO-10303-21;
            HEADER;
            FILE_DESCRIPTION((''),'2;1');
            FILE_NAME('bench','2026-11-17',(''),(''),'','','');
            FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));
            ENDSEC;
            DATA;
            """;

    private ModelBench() {}

    /** A model of so many products, the rest geometry; streamed to a file. */
    private static Path model(int products, long bytes) throws IOException {
        Path file = Files.createTempFile("bench", ".stp");
        Random random = new Random(40);
        long written = 0;
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16)) {
            out.write(HEAD.getBytes(StandardCharsets.US_ASCII));
            int at = 1;
            for (int i = 0; i < products; i++) {
                String text = String.format(
                        Locale.ROOT,
                        "#%d=PRODUCT('P-%d','part %d','',(#2));%n#%d=PRODUCT_DEFINITION_FORMATION('A','',#%d);%n#%d=PRODUCT_DEFINITION('design','',#%d,#3);%n",
                        at,
                        i,
                        i,
                        at + 1,
                        at,
                        at + 2,
                        at + 1);
                if (i > 0) {
                    text += String.format(
                            Locale.ROOT,
                            "#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('%d','','',#3,#%d,$);%n",
                            at + 3,
                            i,
                            at + 2);
                }
                out.write(text.getBytes(StandardCharsets.US_ASCII));
                written += text.length();
                at += 4;
            }
            while (written < bytes) {
                String text = String.format(
                        Locale.ROOT,
                        "#%d=CARTESIAN_POINT('',(%.6f,%.6f,%.6f));%n#%d=DIRECTION('',(%.6f,%.6f,0.));%n#%d=ORIENTED_EDGE('',*,*,#%d,.T.);%n",
                        at,
                        random.nextDouble() * 1000,
                        random.nextDouble() * 1000,
                        random.nextDouble() * 1000,
                        at + 1,
                        random.nextDouble(),
                        random.nextDouble(),
                        at + 2,
                        at);
                out.write(text.getBytes(StandardCharsets.US_ASCII));
                written += text.length();
                at += 3;
            }
            out.write("ENDSEC;\nEND-ISO-10303-21;\n".getBytes(StandardCharsets.US_ASCII));
        }
        return file;
    }

    static void reading() {
        try {
            Path file = model(2000, 100L << 20);
            double mb = Files.size(file) / 1e6;
            double[] read = new double[TURNS];
            double[] pass = new double[TURNS];
            long products = 0;
            for (int i = 0; i < TURNS; i++) {
                long start = System.nanoTime();
                try (InputStream in = Files.newInputStream(file)) {
                    CRC32 sum = new CRC32();
                    byte[] buffer = new byte[1 << 18];
                    for (int n = in.read(buffer); n > 0; n = in.read(buffer)) sum.update(buffer, 0, n);
                }
                pass[i] = seconds(start);
                start = System.nanoTime();
                try (InputStream in = Files.newInputStream(file)) {
                    products = ((Outcome.Granted<StepModel>) StepReader.read(in))
                            .value()
                            .products()
                            .size();
                }
                read[i] = seconds(start);
            }
            Files.delete(file);
            double one = Bench.percentile(read, 0.5);
            Bench.say(
                    "%.0f MB, %d products: %.2f s, %.0f MB/s (asked: 100); a sum over the bytes takes %.2f s: ratio %.1f",
                    mb, products, one, mb / one, Bench.percentile(pass, 0.5), one / Bench.percentile(pass, 0.5));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static double seconds(long start) {
        return (System.nanoTime() - start) / (double) TimeUnit.SECONDS.toNanos(1);
    }

    /** A million uses between a hundred thousand documents; questions that touch ten thousand. */
    static void structure() {
        Random random = new Random(40);
        List<Use> uses = new ArrayList<>(1_000_000);
        int documents = 100_000;
        for (int i = 0; i < 1_000_000; i++) {
            int parent = random.nextInt(documents - 1);
            int component = parent + 1 + random.nextInt(Math.min(2000, documents - parent - 1));
            uses.add(new Use(parent, component, 1 + random.nextInt(4), random.nextInt(5)));
        }
        long start = System.nanoTime();
        StructureGraph graph = StructureGraph.of(uses);
        double built = seconds(start);
        // A document near the end: about ten thousand are below it.
        long top = documents - 10_000L;
        double[] below = new double[20];
        double[] above = new double[20];
        double[] old = new double[20];
        int found = 0;
        int[] latest = new int[graph.documents().length];
        for (int i = 0; i < latest.length; i++) latest[i] = i % 500 == 0 ? 5 : 0;
        for (int i = 0; i < 20; i++) {
            start = System.nanoTime();
            found = graph.components(top).length;
            below[i] = seconds(start) * 1000;
            start = System.nanoTime();
            graph.whereUsed(10_000);
            above[i] = seconds(start) * 1000;
            start = System.nanoTime();
            graph.outOfDate(latest);
            old[i] = seconds(start) * 1000;
        }
        Bench.say("a million uses built in %.2f s", built);
        Bench.say(
                "components (%d found) %.1f ms, where used %.1f ms (asked: 50 with the database), out of date over all %.1f ms (asked: 150)",
                found, Bench.percentile(below, 0.5), Bench.percentile(above, 0.5), Bench.percentile(old, 0.5));
    }
}
