package mintshelf.core.model.step;

import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Writes what consists of what as an exchange file without shapes: products with their revisions, usages with quantities, the files that hold their
 * shapes. Clear text encoding of ISO 10303-21; schema of ISO 10303-242, of it the products and formations of part 41, the usages of part 44, as
 * instances that -203 and -214 know by the same names. O(products + usages).
 *
 * <p>Whole pieces up to {@link #SINGLE} are as many usages, which every reader counts; other quantities are one usage with a measure
 * (QUANTIFIED_ASSEMBLY_COMPONENT_USAGE).
 */
public final class StepStructure {
    /** Pieces that are written as usages of their own. */
    public static final int SINGLE = 200;

    private static final String SCHEMA = "AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF { 1 0 10303 442 1 1 4 }";
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss'Z'").withZone(ZoneOffset.UTC);

    private final Writer out;
    private final Map<String, Long> units = new HashMap<>();
    private long last;
    private long metre;

    private StepStructure(Writer out) {
        this.out = out;
    }

    /**
     * A product.
     *
     * @param id by which it is known: its number; two of one id are revisions of one product
     * @param revision empty where it has none
     * @param bought whether it is bought, not made
     * @param file that holds its shape; empty where there is none
     */
    public record Product(String id, String name, String revision, boolean bought, String file) {}

    /**
     * A product in another one.
     *
     * @param parent place of that among the products
     * @param find its find number there
     * @param unit pc, m, mm, m2, g, kg, ml or l
     */
    public record Usage(int parent, int child, String find, BigDecimal quantity, String unit) {}

    /**
     * @param name of the file that is written
     * @param says what is to be known of it beside that it is a product structure: what is left out
     */
    public record Head(String name, Instant at, String author, String organisation, List<String> says) {
        public Head {
            says = List.copyOf(says);
        }
    }

    /** Writes a file; the stream stays open. Usages name products by their places; who names another one gets an exception before anything is written. */
    public static void write(Head head, List<Product> products, List<Usage> usages, OutputStream to)
            throws IOException {
        for (Usage usage : usages) {
            if (Math.max(usage.parent(), usage.child()) >= products.size()
                    || Math.min(usage.parent(), usage.child()) < 0)
                throw new IllegalArgumentException("a usage of no product");
        }
        Writer out = new OutputStreamWriter(to, StandardCharsets.US_ASCII);
        new StepStructure(out).all(head, products, usages);
        out.flush();
    }

    private void all(Head head, List<Product> products, List<Usage> usages) throws IOException {
        out.write("ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION(('product structure'");
        for (String one : head.says()) out.write("," + text(one));
        out.write("),'2;1');\n");
        out.write("FILE_NAME(" + text(head.name()) + ",'" + STAMP.format(head.at()) + "',(" + text(head.author())
                + "),(" + text(head.organisation()) + "),'','Mint Shelf','');\n");
        out.write("FILE_SCHEMA(('" + SCHEMA + "'));\nENDSEC;\nDATA;\n");
        long context = add("APPLICATION_CONTEXT('managed model based 3d engineering')");
        add("APPLICATION_PROTOCOL_DEFINITION('international standard',"
                + "'ap242_managed_model_based_3d_engineering',2014,#" + context + ")");
        long mechanical = add("PRODUCT_CONTEXT('',#" + context + ",'mechanical')");
        long design = add("PRODUCT_DEFINITION_CONTEXT('part definition',#" + context + ",'design')");
        long type = products.stream().allMatch(p -> p.file().isEmpty()) ? 0 : add("DOCUMENT_TYPE('')");
        Map<String, Long> named = new LinkedHashMap<>();
        long[] defined = new long[products.size()];
        for (int i = 0; i < products.size(); i++) {
            Product p = products.get(i);
            Long product = named.get(p.id());
            if (product == null) {
                product = add("PRODUCT(" + text(p.id()) + "," + text(p.name()) + ",$,(#" + mechanical + "))");
                named.put(p.id(), product);
            }
            long formed = add("PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE(" + text(p.revision()) + ",$,#"
                    + product + (p.bought() ? ",.BOUGHT.)" : ",.MADE.)"));
            defined[i] = add("PRODUCT_DEFINITION('design',$,#" + formed + ",#" + design + ")");
            if (p.file().isEmpty()) continue;
            long file = add("DOCUMENT_FILE(" + text(p.file()) + ",'','',#" + type + ",'',$)");
            add("APPLIED_DOCUMENT_REFERENCE(#" + file + ",'',(#" + defined[i] + "))");
        }
        add("PRODUCT_RELATED_PRODUCT_CATEGORY('part',$,("
                + named.values().stream().map(n -> "#" + n).collect(Collectors.joining(",")) + "))");
        for (Usage usage : usages) usage(usage, defined);
        out.write("ENDSEC;\nEND-ISO-10303-21;\n");
    }

    private void usage(Usage usage, long[] defined) throws IOException {
        String between = ",#" + defined[usage.parent()] + ",#" + defined[usage.child()];
        Optional<Integer> pieces = pieces(usage);
        if (pieces.isPresent()) {
            for (int i = 1; i <= pieces.get(); i++) {
                String id = text(pieces.get() == 1 ? usage.find() : usage.find() + "." + i);
                add("NEXT_ASSEMBLY_USAGE_OCCURRENCE(" + id + ",'',$" + between + ",$)");
            }
            return;
        }
        long unit = unit(usage.unit());
        long measure =
                add("MEASURE_WITH_UNIT(" + measure(usage.unit()) + "(" + real(usage.quantity()) + "),#" + unit + ")");
        add("(ASSEMBLY_COMPONENT_USAGE($)NEXT_ASSEMBLY_USAGE_OCCURRENCE()PRODUCT_DEFINITION_RELATIONSHIP("
                + text(usage.find()) + ",'',$" + between
                + ")PRODUCT_DEFINITION_USAGE()QUANTIFIED_ASSEMBLY_COMPONENT_USAGE(#" + measure + "))");
    }

    /** How many usages a quantity is written as; nothing where it is written as a measure. */
    private static Optional<Integer> pieces(Usage usage) {
        if (!usage.unit().equals("pc")) return Optional.empty();
        try {
            int n = usage.quantity().intValueExact();
            return n >= 1 && n <= SINGLE ? Optional.of(n) : Optional.empty();
        } catch (ArithmeticException e) {
            return Optional.empty();
        }
    }

    private static String measure(String unit) {
        return switch (unit) {
            case "m", "mm" -> "LENGTH_MEASURE";
            case "m2" -> "AREA_MEASURE";
            case "g", "kg" -> "MASS_MEASURE";
            case "ml", "l" -> "VOLUME_MEASURE";
            default -> "COUNT_MEASURE";
        };
    }

    /** Each unit once; what is no unit of the SI depends on the context, by its name. */
    private long unit(String unit) throws IOException {
        Long known = units.get(unit);
        if (known != null) return known;
        long added = switch (unit) {
            case "m" -> metre();
            case "mm" -> add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
            case "m2" -> add("DERIVED_UNIT((#" + add("DERIVED_UNIT_ELEMENT(#" + metre() + ",2.)") + "))");
            case "g" -> add("(MASS_UNIT()NAMED_UNIT(*)SI_UNIT($,.GRAM.))");
            case "kg" -> add("(MASS_UNIT()NAMED_UNIT(*)SI_UNIT(.KILO.,.GRAM.))");
            case "ml", "l" ->
                add("CONTEXT_DEPENDENT_UNIT(#" + add("DIMENSIONAL_EXPONENTS(3.,0.,0.,0.,0.,0.,0.)") + "," + text(unit)
                        + ")");
            default ->
                add("CONTEXT_DEPENDENT_UNIT(#" + add("DIMENSIONAL_EXPONENTS(0.,0.,0.,0.,0.,0.,0.)") + "," + text(unit)
                        + ")");
        };
        units.put(unit, added);
        return added;
    }

    private long metre() throws IOException {
        if (metre == 0) metre = add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT($,.METRE.))");
        return metre;
    }

    private long add(String instance) throws IOException {
        out.write("#" + ++last + "=" + instance + ";\n");
        return last;
    }

    private static String text(String text) {
        return "'" + StepText.encode(text) + "'";
    }

    /** A real has a point, and an exponent behind E (clause 6.4.2). */
    private static String real(BigDecimal value) {
        String plain = value.stripTrailingZeros().toPlainString();
        return plain.contains(".") ? plain : plain + ".";
    }
}
