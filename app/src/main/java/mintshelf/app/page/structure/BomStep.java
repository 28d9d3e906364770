package mintshelf.app.page.structure;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.app.use.structure.ReadBom.Stands;
import mintshelf.core.base.Numbers;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.model.step.StepStructure;
import mintshelf.core.model.step.StepStructure.Product;
import mintshelf.core.model.step.StepStructure.Usage;

/** A BOM as an exchange file of its structure. */
final class BomStep {
    private BomStep() {}

    /** The file; what is left out of it is said in its head. */
    static byte[] of(Read read, String name, Instant at, String author) {
        Bom bom = read.bom();
        Map<Integer, Integer> places = new HashMap<>();
        List<Product> products = new ArrayList<>();
        for (int i = 0; i < bom.size(); i++) {
            if (!bom.isReached(i)) continue;
            places.put(i, products.size());
            products.add(product(bom.part(i), read.stands().get(i)));
        }
        List<Usage> usages = new ArrayList<>();
        int open = 0;
        for (int i = 0; i < bom.size(); i++) {
            Integer parent = places.get(i);
            if (parent == null) continue;
            List<BomLine> lines = bom.lines(i);
            for (int k = 0; k < lines.size(); k++) {
                BomLine line = lines.get(k);
                Integer child = places.get(line.part());
                if (line.open()) open++;
                else if (child != null && !bom.isRing(i, k))
                    usages.add(new Usage(parent, child, line.find(), line.quantity(), line.unit()));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            StepStructure.write(new StepStructure.Head(name, at, author, "", says(read, open)), products, usages, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static List<String> says(Read read, int open) {
        List<String> says = new ArrayList<>();
        if (open > 0)
            says.add(Numbers.count(open, "line of some products only is", "lines of some products only are")
                    + " left out: ask for a serial number or a lot");
        if (!read.left().isEmpty())
            says.add(Numbers.count(read.left().size(), "line of other products is", "lines of other products are")
                    + " left out");
        if (read.cut()) says.add("there is more below that was not read");
        if (read.incomplete()) says.add("parts that its reader does not see are without number and name");
        return says;
    }

    private static Product product(BomPart part, Stands stands) {
        boolean variant = !part.variant().isEmpty()
                && stands.seen()
                        .filter(s -> s.document().number().equals(part.number()))
                        .isPresent();
        String id = part.number().isEmpty() ? part.title() : part.number() + (variant ? ", " + part.variant() : "");
        String file = stands.seen()
                .filter(s -> !s.document().part() && part.version() > 0)
                .map(s -> s.document().fileName())
                .orElse("");
        return new Product(id, part.title(), part.revision(), part.comes().isWhole(), file);
    }
}
