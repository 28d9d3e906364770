package mintshelf.demo;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** What parts are to purchasing: where they come from, what they weigh and cost, how long they take. Makers and prices are made up; two facts are lacking. */
final class Purchasing {
    private static final Map<String, String> MADE = Map.ofEntries(
            Map.entry("TG40-1010", "318"),
            Map.entry("TG40-1020", "142"),
            Map.entry("TG40-1030", "96"),
            Map.entry("TG40-1040", "24.5"),
            Map.entry("TG40-1050", "3.2"),
            Map.entry("TG40-2010", "68"),
            Map.entry("TG40-2020", "54"),
            Map.entry("TG40-2030", "41"),
            Map.entry("TG40-2040", "18.6"),
            Map.entry("TG40-3010", "214"),
            Map.entry("TG40-3020", "62"),
            Map.entry("TG40-3030", "48"),
            Map.entry("TG40-3050", "71"),
            Map.entry("TG40-4010", "88"),
            Map.entry("TG40-4020", "164"),
            Map.entry("TG40-4030", "9.4"),
            Map.entry("TG40-4040", "77"),
            Map.entry("TG40-4050", "12.8"),
            Map.entry("LS18-1010", "31"));

    private static final Map<String, List<String>> LIBRARY = Map.of(
            "ISO 4017 M8 x 40", List.of("0.021", "0.32"),
            "ISO 4017 M5 x 20", List.of("0.0042", "0.11"),
            "ISO 4762 M6 x 16", List.of("0.0056", "0.19"),
            "ISO 4032 M8", List.of("0.0052", "0.08"),
            "ISO 15 6202", List.of("0.045", "4.2"),
            "ISO 3601 40 x 2", List.of("0.0012", "0.9"),
            "ISO 3601 40 x 2.5", List.of("0.0017", "1.1"));

    private Purchasing() {}

    /** The facts of a part, by its number. */
    static Map<String, String> facts(String number) {
        if (LIBRARY.containsKey(number)) {
            List<String> known = LIBRARY.getOrDefault(number, List.of());
            return Map.of("comes", "library", "mass", known.get(0), "cost", known.get(1), "lead-time", "3");
        }
        return switch (number) {
            case "EGW-EN-48" -> bought("0.62", "318", "42", "Keldby Sensors", "KS-48-1024");
            // By the metre: how much of it a gauge has depends on its well.
            case "EGW-FT-12" -> with(bought("0.055", "4.6", "14", "Ribe Band", "RB 12 316"), Map.of("unit", "m"));
            case "EGW-SP-20" -> with(bought("", "720", "21", "Solhus", "SH-20-C"), Map.of("currency", "DKK"));
            default ->
                MADE.containsKey(number)
                        ? Map.of("comes", "made", "cost", MADE.getOrDefault(number, ""))
                        : Map.of("comes", "made");
        };
    }

    private static Map<String, String> bought(String mass, String cost, String days, String maker, String number) {
        Map<String, String> facts = Map.of(
                "comes", "bought", "cost", cost, "lead-time", days, "supplier", maker, "supplier-number", number);
        return mass.isEmpty() ? facts : with(facts, Map.of("mass", mass));
    }

    static Map<String, String> with(Map<String, String> facts, Map<String, String> more) {
        Map<String, String> all = new LinkedHashMap<>(facts);
        all.putAll(more);
        return all;
    }

    /** Assemblies that were released once, and are revised now. */
    static Stream<String> released() {
        return Stream.of("TG40-2000", "TG40-3000");
    }
}
