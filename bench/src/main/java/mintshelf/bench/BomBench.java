package mintshelf.bench;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import mintshelf.app.Server;
import mintshelf.app.Web;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.RollUp;

/** Bills of materials: the sums over large ones, and the page of a usual one. */
final class BomBench {
    private static final int GROUPS = 33;
    private static final int PARTS = 30;

    private BomBench() {}

    static void bom() {
        // Levels of 100 parts, each with ten lines to the next level: a hundred times ten times itself paths.
        Bom paths = levels(6, 100, 10, 1);
        if (paths.tree(false, Bom.DEEPEST, 100_000).rows().size() < 100_000) throw new IllegalStateException("few");
        Bench.say(
                "flat over %,d paths and more: %.1f ms (asked: under 300)",
                100_000, median(() -> paths.flat(Bom.For.ENGINEERING)));
        Bom nodes = levels(10, 10_000, 1, 1);
        Bench.say(
                "roll-up over %,d parts: %.1f ms (asked: under 200)",
                nodes.size(), median(() -> RollUp.of(nodes, RollUp.Of.MASS)));
        Bom one = levels(5, 10_000, 1, 1);
        Bom other = levels(5, 10_000, 1, 2);
        Bench.say(
                "%,d lines compared with %,d: %.1f ms (asked: under 500), %d differences",
                one.size() - 1,
                other.size() - 1,
                median(() -> BomCompare.of(one, other)),
                BomCompare.of(one, other).differences().size());
        page();
    }

    /** The top has the first level, the others the next one at random places, so that all of it is met. */
    private static Bom levels(int levels, int wide, int lines, long seed) {
        Random random = new Random(seed);
        List<BomPart> parts = new ArrayList<>();
        List<List<BomLine>> below = new ArrayList<>();
        for (int i = 0; i <= levels * wide; i++) {
            parts.add(new BomPart(
                    i + 1,
                    "P" + i,
                    "part",
                    random.nextInt(50) == 0 ? "B" : "A",
                    1,
                    Comes.MADE,
                    "pc",
                    Optional.of(BigDecimal.ONE),
                    Optional.empty()));
            below.add(new ArrayList<>());
        }
        for (int p = 0; p < wide; p++) below.get(0).add(line(below.get(0).size() + 1, p + 1, 1));
        for (int level = 0; level + 1 < levels; level++) {
            for (int p = 0; p < wide; p++) {
                List<BomLine> mine = below.get(level * wide + p + 1);
                for (int n = 0; n < lines; n++) {
                    int to = lines == 1 ? p : random.nextInt(wide);
                    mine.add(line(n + 1, (level + 1) * wide + to + 1, random.nextInt(40) == 0 ? 3 : 2));
                }
            }
        }
        return Bom.of(parts, below);
    }

    private static BomLine line(int find, int part, int quantity) {
        return new BomLine(String.valueOf(find), part, BigDecimal.valueOf(quantity), "pc", false);
    }

    private static double median(Supplier<?> what) {
        double[] times = new double[9];
        for (int i = -5; i < times.length; i++) {
            long start = System.nanoTime();
            if (what.get() == null) throw new IllegalStateException();
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e6;
        }
        return Bench.percentile(times, 0.5);
    }

    private static void page() {
        Server server = Server.shared();
        long shelf = server.shelf();
        String mark = "M" + Server.key().substring(0, 6) + "-";
        int number = 1000;
        List<String> groups = new ArrayList<>();
        for (int g = 0; g < GROUPS; g++) {
            List<String> parts = new ArrayList<>();
            for (int p = 0; p < PARTS; p++) parts.add(file(server, shelf, mark + ++number, List.of()));
            groups.add(file(server, shelf, mark + ++number, parts));
        }
        String top = mark + ++number;
        long item = server.file("priya", shelf, Server.PLAIN, top + ".stp", top, assembly(top, groups), false);
        Web web = Web.as(server, "priya");
        double[] times = new double[60];
        for (int i = -30; i < times.length; i++) {
            long start = System.nanoTime();
            String body = web.get("/documents/" + item + "/bom").body();
            if (!body.contains(groups.get(0).replace(".stp", ""))) throw new IllegalStateException("no rows");
            if (i >= 0) times[i] = (System.nanoTime() - start) / 1e6;
        }
        Bench.say(
                "first rows of a BOM with %,d documents below: median %.0f, p95 %.0f ms (asked: under 150)",
                number - 1000, Bench.percentile(times, 0.5), Bench.percentile(times, 0.95));
    }

    private static String file(Server server, long shelf, String number, List<String> components) {
        server.file("priya", shelf, Server.PLAIN, number + ".stp", number, assembly(number, components), false);
        return number + ".stp";
    }

    private static byte[] assembly(String name, List<String> components) {
        StringBuilder s = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_NAME('" + name
                + "','2026-01-01',(''),(''),'','','');\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n#1=PRODUCT('" + name
                + "','','',());\n");
        for (int i = 0; i < components.size(); i++)
            s.append("#%d=DOCUMENT_FILE('%s','','',#3,'',$);\n".formatted(100 + i, components.get(i)));
        return s.append("ENDSEC;\nEND-ISO-10303-21;\n").toString().getBytes(StandardCharsets.US_ASCII);
    }
}
