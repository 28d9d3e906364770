package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * Reads products, usages, units, validation properties and external documents out of an exchange file, streamed. O(bytes); memory
 * grows with the products, not with the geometry.
 *
 * <p>The file is the clear text encoding of ISO 10303-21: header and data sections, instances by internal and by external mapping,
 * strings with their control directives (clause 6.4.3). Of its schema (ISO 10303-203, -214, -242) only what says what a product is and
 * what it consists of: PRODUCT, its formation and definition, and the files that documents are in (ISO 10303-41), usages (ISO 10303-44),
 * validation properties (mass, volume, area). Instances may refer forward; references are resolved when all are read. What refers to
 * nothing is left out, and said.
 */
public final class StepReader {
    /** Instances that say something of products: 41 (product structure), 42, 45 and 203 (properties), 44 (usages). */
    private static final Set<String> WANTED = Set.of(
            "PRODUCT",
            "PRODUCT_DEFINITION",
            "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS",
            "PRODUCT_DEFINITION_FORMATION",
            "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE",
            "NEXT_ASSEMBLY_USAGE_OCCURRENCE",
            "PRODUCT_DEFINITION_SHAPE",
            "PROPERTY_DEFINITION",
            "PROPERTY_DEFINITION_REPRESENTATION",
            "REPRESENTATION",
            "MEASURE_REPRESENTATION_ITEM",
            "MEASURE_WITH_UNIT",
            "VALUE_REPRESENTATION_ITEM",
            "DESCRIPTIVE_REPRESENTATION_ITEM",
            "INTEGER_REPRESENTATION_ITEM",
            "REAL_REPRESENTATION_ITEM",
            "DERIVED_UNIT",
            "DERIVED_UNIT_ELEMENT",
            "DOCUMENT_FILE",
            "APPLIED_DOCUMENT_REFERENCE",
            "APPLIED_EXTERNAL_IDENTIFICATION_ASSIGNMENT");

    private static final int[] HASHES =
            WANTED.stream().mapToInt(StepScanner::hash).sorted().toArray();
    /** Beyond this many instances of interest, or letters in them, a file is no description of products. */
    private static final int MOST = 2_000_000;

    private static final long MOST_LETTERS = 50_000_000;

    private static final String USAGE = "NEXT_ASSEMBLY_USAGE_OCCURRENCE";
    /** Pieces that one usage is taken to stand for at the most: what a file says beyond that is no count. */
    private static final int MOST_COUNTED = 1_000_000;

    private static final int MOST_SAID = 20;
    /** Products in products in products: no real one goes as deep. */
    private static final int DEEPEST = 500;

    private final StepScanner scan;
    private final Map<Long, Typed> kept = new LinkedHashMap<>();
    /** Units of length, in the order of the file's search; others beside them. */
    private final Map<Long, String> units = new HashMap<>();

    private final Map<Long, String> otherUnits = new HashMap<>();
    private final List<List<Long>> contexts = new ArrayList<>();
    private final Map<String, List<long[]>> externals = new LinkedHashMap<>();
    private final Map<Long, String> files = new HashMap<>();
    /** The measures of usages that say how much of what they use. */
    private final Map<Long, Long> quantities = new HashMap<>();

    private final List<String> said = new ArrayList<>();
    private StepModel.Head head = new StepModel.Head("", "", "", -1, -1);
    private String schema = "";
    private long instances;
    private int taken;
    private long letters;
    private boolean signed;
    private boolean ended;

    private StepReader(InputStream in) {
        this.scan = new StepScanner(in);
    }

    /** Reads a file, or says in one sentence with the line why it is none. What breaks off half way is read up to there and said. */
    public static Outcome<StepModel> read(InputStream in) throws IOException {
        StepReader reader = new StepReader(in);
        try {
            if (!reader.scan.keyword().equals("ISO-10303-21")) {
                return Outcome.refused("step.head", "Line 1 does not begin an exchange file of ISO 10303-21.", "");
            }
            reader.scan.expect(';');
            reader.sections();
        } catch (StepScanner.Broken e) {
            if (reader.instances == 0 && reader.schema.isEmpty()) {
                return Outcome.refused(
                        "step.broken", "Line " + reader.scan.line() + " has " + e.getMessage() + ".", "");
            }
            reader.say("Line " + reader.scan.line() + " has " + e.getMessage() + "; what follows is not read.");
        }
        return Outcome.granted(reader.model());
    }

    private void say(String sentence) {
        if (said.size() < MOST_SAID && !said.contains(sentence)) said.add(sentence);
    }

    private void sections() throws IOException {
        while (scan.next() >= 0) {
            String section = scan.keyword();
            switch (section) {
                case "HEADER" -> {
                    scan.expect(';');
                    header();
                }
                case "DATA" -> {
                    scan.skip();
                    data();
                }
                case "REFERENCE" -> {
                    scan.expect(';');
                    references();
                }
                case "SIGNATURE" -> {
                    signed = true;
                    ended = true;
                    return;
                }
                case "END-ISO-10303-21" -> ended = true;
                case "" -> throw new StepScanner.Broken("“" + (char) scan.next() + "” where a section should begin");
                default -> scan.skip();
            }
            if (ended) {
                scan.next();
                if (scan.next() == ';') scan.expect(';');
            }
        }
        if (!ended) say("The file ends in line " + scan.line() + " without its end mark.");
    }

    private void header() throws IOException {
        while (true) {
            String name = scan.keyword();
            if (name.equals("ENDSEC")) {
                scan.expect(';');
                return;
            }
            if (name.isEmpty()) throw new StepScanner.Broken("a head that is none");
            Typed said = new Typed(name, scan.parameters(0));
            scan.expect(';');
            if (name.equals("FILE_NAME")) {
                boolean stamped = said.at(1) instanceof StepValue.Text;
                head = new StepModel.Head(
                        said.at(0).text(),
                        said.at(1).text(),
                        said.at(5).text(),
                        stamped ? ((StepValue.Text) said.at(1)).from() : -1,
                        stamped ? ((StepValue.Text) said.at(1)).to() : -1);
            } else if (name.equals("FILE_SCHEMA") && said.at(0) instanceof StepValue.Many many) {
                String named =
                        many.values().isEmpty() ? "" : many.values().get(0).text();
                schema = named.strip().replaceAll("[\\s{].*", "");
            }
        }
    }

    /** Names of resources outside (edition 3): {@code #10=<part.stp#product>;}. */
    private void references() throws IOException {
        while (scan.next() == '#') scan.skip();
        scan.keyword();
        scan.expect(';');
    }

    private void data() throws IOException {
        while (true) {
            int c = scan.next();
            if (c < 0) return;
            if (c != '#') {
                if (!scan.keyword().equals("ENDSEC")) {
                    say("Line " + scan.line() + " begins no instance; it is passed over.");
                    scan.skip();
                    continue;
                }
                scan.expect(';');
                return;
            }
            long id = scan.name();
            scan.expect('=');
            instances++;
            if (scan.next() == '(') {
                complex(id);
            } else if (scan.isKeywordIn(WANTED, HASHES) && takes()) {
                Typed instance = new Typed(scan.lastWord(), scan.parameters(0));
                scan.expect(';');
                simple(id, instance);
            } else {
                scan.skip();
            }
        }
    }

    /** Whether there is room for one more; where there is not, that is said. */
    private boolean takes() {
        if (taken < MOST && letters < MOST_LETTERS) {
            taken++;
            return true;
        }
        say("It says more of products than is read here; the rest of that is left out.");
        return false;
    }

    private static long letters(StepValue value) {
        if (value instanceof StepValue.Text t) return t.text().length();
        List<StepValue> parts = value instanceof Typed typed
                ? typed.values()
                : value instanceof StepValue.Many many ? many.values() : List.of();
        // A value that says little takes its room too.
        long sum = parts.size();
        for (StepValue part : parts) sum += letters(part);
        return sum;
    }

    private void simple(long id, Typed instance) {
        letters += letters(instance);
        switch (instance.type()) {
            case "DOCUMENT_FILE", "APPLIED_EXTERNAL_IDENTIFICATION_ASSIGNMENT" -> {
                if (instance.at(0) instanceof StepValue.Text t && !t.text().isBlank()) {
                    externals.computeIfAbsent(t.text(), n -> new ArrayList<>()).add(new long[] {t.from(), t.to()});
                    if (instance.type().equals("DOCUMENT_FILE")) files.put(id, t.text());
                }
            }
            default -> kept.put(id, instance);
        }
    }

    /** An instance of several types at once: usages with a quantity, units, the contexts that name them, and measured values. */
    private void complex(long id) throws IOException {
        scan.expect('(');
        Map<String, Typed> parts = new LinkedHashMap<>();
        while (scan.next() != ')') {
            String type = scan.keyword();
            if (type.isEmpty()) throw new StepScanner.Broken("a complex instance that is none");
            parts.putIfAbsent(type, new Typed(type, scan.parameters(0)));
        }
        scan.expect(')');
        scan.expect(';');
        Optional.ofNullable(parts.get("GLOBAL_UNIT_ASSIGNED_CONTEXT"))
                .ifPresent(context -> contexts.add(context.at(0).refs()));
        String unit = unit(parts);
        Typed related = parts.get("PRODUCT_DEFINITION_RELATIONSHIP");
        if (related != null && parts.containsKey(USAGE)) {
            if (!takes()) return;
            kept.put(id, new Typed(USAGE, related.values()));
            Optional.ofNullable(parts.get("QUANTIFIED_ASSEMBLY_COMPONENT_USAGE"))
                    .ifPresent(q -> quantities.put(id, q.at(0).ref()));
            return;
        }
        boolean says = !unit.isEmpty() || parts.containsKey("DERIVED_UNIT") || parts.containsKey("MEASURE_WITH_UNIT");
        if (!says || !takes()) return;
        if (!unit.isEmpty()) (parts.containsKey("LENGTH_UNIT") ? units : otherUnits).put(id, unit);
        Optional.ofNullable(parts.get("DERIVED_UNIT")).ifPresent(derived -> kept.put(id, derived));
        Typed named = parts.get("REPRESENTATION_ITEM");
        Typed measured = parts.get("MEASURE_WITH_UNIT");
        if (named != null && measured != null && parts.containsKey("MEASURE_REPRESENTATION_ITEM")) {
            kept.put(
                    id, new Typed("MEASURE_REPRESENTATION_ITEM", List.of(named.at(0), measured.at(0), measured.at(1))));
        }
    }

    private static String unit(Map<String, Typed> parts) {
        Typed converted = parts.get("CONVERSION_BASED_UNIT");
        if (converted != null) return converted(converted.at(0).text());
        Typed si = parts.get("SI_UNIT");
        return si == null ? "" : si(si);
    }

    private static String si(Typed unit) {
        String prefix = unit.at(0) instanceof StepValue.Word w ? w.word() : "";
        String base = switch (unit.at(1) instanceof StepValue.Word w ? w.word() : "") {
            case "METRE" -> "m";
            case "GRAM" -> "g";
            default -> "";
        };
        if (base.isEmpty()) return "";
        return switch (prefix) {
            case "" -> base;
            case "MILLI" -> "m" + base;
            case "CENTI" -> "c" + base;
            case "DECI" -> "d" + base;
            case "MICRO" -> "µ" + base;
            case "KILO" -> "k" + base;
            default -> prefix.toLowerCase(Locale.ROOT) + (base.equals("m") ? "metre" : "gram");
        };
    }

    private static String converted(String name) {
        String plain = name.toUpperCase(Locale.ROOT).replace("'", "");
        if (plain.contains("INCH")) return "in";
        if (plain.contains("FOOT") || plain.contains("FEET")) return "ft";
        return name.toLowerCase(Locale.ROOT);
    }

    /** The unit of the first context that has one, else the first length unit of the file. */
    private String lengthUnit() {
        for (List<Long> context : contexts) {
            for (long unit : context) if (units.containsKey(unit)) return units.getOrDefault(unit, "");
        }
        return units.values().stream().findFirst().orElse("");
    }

    private Optional<Typed> instance(long id) {
        return Optional.ofNullable(kept.get(id));
    }

    private boolean is(Typed instance, String... types) {
        return Arrays.asList(types).contains(instance.type());
    }

    private StepModel model() {
        if (signed) say("The file is signed: it can be read, and not rewritten.");
        Map<Long, String> versions = new HashMap<>();
        kept.values().stream()
                .filter(i -> i.type().startsWith("PRODUCT_DEFINITION_FORMATION"))
                .forEach(i -> versions.putIfAbsent(i.at(2).ref(), i.at(0).text()));
        List<StepModel.Product> products = new ArrayList<>();
        kept.forEach((id, i) -> {
            if (!i.type().equals("PRODUCT")) return;
            products.add(new StepModel.Product(
                    i.at(0).text(), i.at(1).text(), i.at(2).text(), versions.getOrDefault(id, "")));
        });
        List<StepModel.Usage> usages = usages();
        Map<String, Integer> counts = counts(usages);
        Map<Long, String> allUnits = new HashMap<>(otherUnits);
        allUnits.putAll(units);
        StepProperties properties = new StepProperties(kept, allUnits, this::productOf);
        return new StepModel(
                head,
                schema,
                lengthUnit(),
                instances,
                products,
                usages,
                externals.entrySet().stream()
                        .map(e -> new StepModel.External(e.getKey(), e.getValue(), counts.getOrDefault(e.getKey(), 1)))
                        .toList(),
                properties.measured(),
                properties.named(),
                said);
    }

    /** How often each external file's product stands in the file, by the file's name. */
    private Map<String, Integer> counts(List<StepModel.Usage> usages) {
        Map<String, List<StepModel.Usage>> uses = new HashMap<>();
        usages.forEach(
                u -> uses.computeIfAbsent(u.child(), c -> new ArrayList<>()).add(u));
        Map<String, Long> known = new HashMap<>();
        Map<String, Integer> counts = new HashMap<>();
        for (Typed i : kept.values()) {
            if (!i.type().equals("APPLIED_DOCUMENT_REFERENCE")) continue;
            Optional<String> file = Optional.ofNullable(files.get(i.at(0).ref()));
            for (long described : i.at(2).refs()) {
                Optional<String> product = productOf(described);
                if (file.isEmpty() || product.isEmpty()) continue;
                long count = occurrences(product.get(), uses, known, 0);
                counts.put(file.get(), (int) Math.min(Integer.MAX_VALUE, Math.max(1, count)));
            }
        }
        return counts;
    }

    /** Over all paths from the top; a product that stands nowhere counts once, a cycle counts no further. */
    private static long occurrences(
            String product, Map<String, List<StepModel.Usage>> uses, Map<String, Long> known, int depth) {
        Long before = known.get(product);
        if (before != null) return before;
        known.put(product, 0L);
        long sum = 0;
        for (StepModel.Usage use : uses.getOrDefault(product, List.of())) {
            if (depth > DEEPEST) break;
            sum += Math.min(Integer.MAX_VALUE, occurrences(use.parent(), uses, known, depth + 1) * use.count());
        }
        long count = uses.containsKey(product) ? Math.min(Integer.MAX_VALUE, sum) : 1;
        known.put(product, count);
        return count;
    }

    /** The product that a definition is of; nothing where the chain is broken. */
    private Optional<String> productOf(long definition) {
        return instance(definition)
                .filter(d -> is(d, "PRODUCT_DEFINITION", "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS"))
                .flatMap(d -> instance(d.at(2).ref()))
                .flatMap(formation -> instance(formation.at(2).ref()))
                .filter(product -> product.type().equals("PRODUCT"))
                .map(product -> product.at(0).text());
    }

    private List<StepModel.Usage> usages() {
        Map<String, StepModel.Usage> usages = new LinkedHashMap<>();
        int broken = 0;
        for (Map.Entry<Long, Typed> one : kept.entrySet()) {
            Typed i = one.getValue();
            if (!i.type().equals(USAGE)) continue;
            int count = count(one.getKey());
            Optional<String> parent = productOf(i.at(3).ref());
            Optional<String> child = productOf(i.at(4).ref());
            if (parent.isEmpty() || child.isEmpty()) {
                broken++;
                continue;
            }
            usages.merge(
                    parent.get() + "\0" + child.get(),
                    new StepModel.Usage(parent.get(), child.get(), count),
                    (a, b) -> new StepModel.Usage(a.parent(), a.child(), a.count() + b.count()));
        }
        if (broken > 0) {
            say(
                    broken == 1
                            ? "1 usage names a product that the file does not hold."
                            : broken + " usages name products that the file does not hold.");
        }
        return List.copyOf(usages.values());
    }

    /** How many one usage stands for: what it counts, in whole pieces; 1 for lengths, masses and what is nothing of that. */
    private int count(long usage) {
        return Optional.ofNullable(quantities.get(usage))
                .flatMap(this::instance)
                .map(m -> m.at(0))
                .filter(v -> v instanceof Typed t && t.type().equals("COUNT_MEASURE"))
                .flatMap(StepValue::number)
                .filter(n -> n >= 1 && n <= MOST_COUNTED && n == Math.rint(n))
                .map(Double::intValue)
                .orElse(1);
    }

    /** Whether a file that was read may be rewritten: a signature would not hold any more. */
    static boolean isSigned(StepModel model) {
        return model.said().stream().anyMatch(s -> s.startsWith("The file is signed"));
    }
}
