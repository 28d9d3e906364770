package mintshelf.bench;

import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
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
import mintshelf.core.model.compare.ModelCompare;
import mintshelf.core.model.compare.ModelFile;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Face;
import mintshelf.core.model.shape.Surface;
import mintshelf.core.model.shape.Vec;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.structure.StructureGraph;
import mintshelf.core.structure.StructureGraph.Use;
import mintshelf.demo.model.Models;
import mintshelf.demo.sheet.Sheets;

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

    /** Two plates with thousands of holes, of which each is a little wider: read and compared; then faces alone, four times as many. */
    static void comparing() {
        byte[] old = plate(6_200, 4);
        byte[] now = plate(6_200, 4.2);
        double[] read = new double[TURNS];
        double[] compare = new double[TURNS];
        String says = "";
        for (int i = 0; i < TURNS; i++) {
            long start = System.nanoTime();
            ModelFile a = file(old);
            ModelFile b = file(now);
            read[i] = seconds(start);
            start = System.nanoTime();
            says = ModelCompare.compare(a, b).differences().get(0).says();
            compare[i] = seconds(start);
        }
        double r = Bench.percentile(read, 0.5);
        double c = Bench.percentile(compare, 0.5);
        Bench.say(
                "two parts of %.0f MB: read in %.2f s, compared in %.2f s (asked: 3 together; compared within 5 times reading: %.1f times): %s",
                old.length / 1e6, r, c, c / r, says);
        ModelFile empty = file(plate(1, 4));
        double quarter = faces(empty, 250_000);
        double whole = faces(empty, 1_000_000);
        Bench.say(
                "faces alone: 250 000 in %.2f s, 1 000 000 in %.2f s: %.1f times for four times as many (asked: linear)",
                quarter, whole, whole / quarter);
    }

    private static byte[] plate(int holes, double wide) {
        return Models.part(
                "TG40-9000",
                "Sieve",
                "316L",
                "",
                new Sheets.Shape.Ring(holes * 4.0, 40, 12, holes, holes * 3.0, wide),
                "2026-11-24T09:00:00");
    }

    private static ModelFile file(byte[] bytes) {
        try {
            return ModelFile.read(() -> new ByteArrayInputStream(bytes))
                    .orElseThrow(r -> new IllegalStateException(r.says()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static double faces(ModelFile of, int n) {
        List<Face> olds = new ArrayList<>(n);
        List<Face> nows = new ArrayList<>(n);
        Vec up = new Vec(0, 0, 1);
        Vec along = new Vec(1, 0, 0);
        for (int i = 0; i < n; i++) {
            Face face = square(i, up, along, 0);
            olds.add(face);
            nows.add(i % 100 == 0 ? square(i, up, along, 0.5) : face);
        }
        ModelFile a = new ModelFile(of.says(), List.of(), List.of(new Body("", 0, olds)), 0, false);
        ModelFile b = new ModelFile(of.says(), List.of(), List.of(new Body("", 0, nows)), 0, false);
        double best = Double.MAX_VALUE;
        for (int i = 0; i < 3; i++) {
            long start = System.nanoTime();
            if (ModelCompare.compare(a, b).same() != n - n / 100) throw new IllegalStateException("faces went astray");
            best = Math.min(best, seconds(start));
        }
        return best;
    }

    private static Face square(int i, Vec up, Vec along, double higher) {
        Vec at = new Vec(10.0 * (i % 1000), 10.0 * Math.floorDiv(i, 1000), higher);
        Surface on = new Surface(Surface.Kind.PLANE, at, up, along, 0, 0, Extent.NONE);
        return new Face(on, true, List.of(), new Extent(at, at.plus(new Vec(5, 5, 0))));
    }
}
