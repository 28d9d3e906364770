package mintshelf.bench;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/** {@code ./shelf bench [NAME]}: each benchmark prints its figures, most of them as ratios against a peer in the same run. */
public final class Bench {
    private static final Map<String, Runnable> ALL = new TreeMap<>(Map.ofEntries(
            Map.entry("check-in", ContentBench::checkInAgainstPlainInserts),
            Map.entry("versions", ContentBench::tenVersionsOfOneFile),
            Map.entry("bundles", BundleBench::bundles),
            Map.entry("impact", ChangeBench::impact),
            Map.entry("changes", ChangeBench::changes),
            Map.entry("pages", PageBench::shelfOfTenThousand),
            Map.entry("search", SearchBench::aHundredThousand),
            Map.entry("take-in", TakeInBench::anOldDrive),
            Map.entry("people", PageBench::twoHundredPeopleForAMinute),
            Map.entry("read-drawing", DrawingBench::reading),
            Map.entry("compare-drawing", DrawingBench::comparing),
            Map.entry("follow-marks", DrawingBench::following),
            Map.entry("carry-out", ChangeBench::carryOut),
            Map.entry("pan-marks", PanBench::panning),
            Map.entry("read-model", ModelBench::reading),
            Map.entry("compare-model", ModelBench::comparing),
            Map.entry("swap", SwapBench::swap),
            Map.entry("new-design", DesignBench::design),
            Map.entry("bom", BomBench::bom),
            Map.entry("take-up", MergeBench::merge),
            Map.entry("structure", ModelBench::structure),
            Map.entry("structure-served", DeskBench::structureServed),
            Map.entry("helper", HelperBench::helper),
            Map.entry("desk-status", DeskBench::deskStatus)));

    private Bench() {}

    /** Runs the named benchmarks, or all. Exit status 1 where one fails, 2 for a name that there is not. */
    public static void main(String[] names) {
        List<String> chosen = names.length == 0 ? List.copyOf(ALL.keySet()) : Arrays.asList(names);
        for (String name : chosen) {
            if (!ALL.containsKey(name)) {
                System.err.println("Benchmarks: " + String.join(", ", ALL.keySet()));
                System.exit(2);
            }
        }
        System.setProperty("mint.durability", "FULL"); // as a house runs it: every commit is on disk
        for (String name : chosen) {
            System.out.println(name + ":");
            try {
                ALL.get(name).run();
            } catch (RuntimeException e) {
                // Servers and browsers that it began would hold the program open.
                System.err.println(name + " failed: " + e);
                e.printStackTrace();
                System.exit(1);
            }
        }
        System.exit(0);
    }

    static double percentile(double[] values, double part) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        int at = (int) Math.ceil(part * sorted.length) - 1;
        return sorted[Math.max(0, Math.min(sorted.length - 1, at))];
    }

    static void say(String format, Object... values) {
        System.out.printf(Locale.ROOT, "  " + format + "%n", values);
    }
}
