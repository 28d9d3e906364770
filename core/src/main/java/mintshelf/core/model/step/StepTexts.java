package mintshelf.core.model.step;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.core.model.step.StepValue.Text;
import mintshelf.core.model.step.StepValue.Typed;

/** Where a file says what its products and their occurrences are called (ISO 10303-41, ISO 10303-44), with the place of each text. */
public final class StepTexts extends StepInstances {
    private static final int MOST_KEPT = 500_000;

    private StepTexts(InputStream in) {
        super(in, Set.of("PRODUCT", "NEXT_ASSEMBLY_USAGE_OCCURRENCE"), MOST_KEPT);
    }

    /**
     * What a product is called, instead of what it was called.
     *
     * @param id of the product from now on
     * @param oldName the name that goes; another one stays
     */
    public record Called(String id, String oldName, String name) {}

    /**
     * A text.
     *
     * @param product the id of the product that it is of; empty for one of an occurrence
     * @param text as it is decoded
     * @param from its first byte between the quotes, {@code to} the one behind the last
     */
    public record Said(String product, String text, long from, long to) {
        /** The text from now on. */
        public String anew(Map<String, Called> products) {
            if (product.isEmpty()) return occurrence(products);
            Called called = products.get(product);
            if (called == null) return text;
            if (text.equals(product)) return called.id();
            return text.equals(called.oldName()) ? called.name() : text;
        }

        /** An occurrence is often called after its product, with a number behind. */
        private String occurrence(Map<String, Called> products) {
            String stem = text.replaceFirst("[:.#_][0-9]{1,9}$", "");
            Called called = products.get(stem);
            return called == null ? text : called.id() + text.substring(stem.length());
        }
    }

    /** The texts, in no order. O(bytes). */
    public static List<Said> of(byte[] file) {
        StepTexts reader = new StepTexts(new ByteArrayInputStream(file));
        try {
            reader.read();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        List<Said> all = new ArrayList<>();
        for (Typed one : reader.kept.values()) {
            String product = one.type().equals("PRODUCT") ? one.at(0).text() : "";
            for (int i = 0; i < 2; i++) {
                if (one.at(i) instanceof Text text) all.add(new Said(product, text.text(), text.from(), text.to()));
            }
        }
        return all;
    }
}
