package mintshelf.core.model.step;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.model.step.StepModel.External;
import mintshelf.core.model.step.StepModel.Usage;
import mintshelf.core.model.step.StepValue.Typed;

/**
 * Takes components that are files of their own out of an assembly: their products, occurrences, placements and documents go, with what only they
 * had (ISO 10303-41, -43, -44); every other instance stays byte for byte, but for lists that named them. Read again to prove it.
 */
public final class StepTakeOut extends StepInstances {
    private static final int MOST_KEPT = 500_000;
    private static final Set<String> WANTED = Set.of(
            "PRODUCT",
            "PRODUCT_DEFINITION",
            "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS",
            "PRODUCT_DEFINITION_FORMATION",
            "PRODUCT_DEFINITION_FORMATION_WITH_SPECIFIED_SOURCE",
            "NEXT_ASSEMBLY_USAGE_OCCURRENCE",
            "DOCUMENT_FILE",
            "APPLIED_DOCUMENT_REFERENCE");

    private StepTakeOut(byte[] file) {
        super(new ByteArrayInputStream(file), WANTED, MOST_KEPT);
    }

    /**
     * The file without some of the files that it refers to. O(bytes).
     *
     * @param names of the files, as {@link External#name()} says them
     * @return refused where it is signed, does not refer to one of them or does not say as which product, where one of them has parts of its own in
     *     this file or is what the file is of, and where it does not read afterwards as it should
     */
    public static Outcome<byte[]> without(byte[] file, Set<String> names) {
        if (!(read(file) instanceof Outcome.Granted<StepModel> before))
            return Outcome.refused("step.none", "It is no exchange file that can be read.", "");
        if (StepReader.isSigned(before.value()))
            return Outcome.refused(
                    "step.signed",
                    "The file is signed: written anew it would not be any more.",
                    "Write it where it was signed.");
        StepTakeOut reader = new StepTakeOut(file);
        try {
            reader.read();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        Set<Long> seeds = new LinkedHashSet<>();
        Set<String> products = new LinkedHashSet<>();
        for (String name : names) {
            Outcome<Set<Long>> found = reader.seeds(name, products);
            if (!(found instanceof Outcome.Granted<Set<Long>> granted))
                return Outcome.refused(found.refusal().orElseThrow());
            seeds.addAll(granted.value());
        }
        StepStatements statements = StepStatements.of(file);
        Set<Long> gone = statements.gone(seeds);
        byte[] written = statements.without(gone);
        return isProved(before.value(), written, names, products, statements.lost())
                ? Outcome.granted(written)
                : Outcome.refused(
                        "step.differs",
                        "The file without it does not read as it should.",
                        "Take it out in the program that wrote the file.");
    }

    private static Outcome<StepModel> read(byte[] file) {
        try {
            return StepReader.read(new ByteArrayInputStream(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The document of a name, and the product that it is of; adds the product's id. */
    private Outcome<Set<Long>> seeds(String name, Set<String> products) {
        Set<Long> seeds = new LinkedHashSet<>();
        Set<Long> definitions = new LinkedHashSet<>();
        kept.forEach((id, i) -> {
            if (i.type().equals("DOCUMENT_FILE") && i.at(0).text().strip().equals(name)) seeds.add(id);
        });
        for (Typed i : kept.values())
            if (i.type().equals("APPLIED_DOCUMENT_REFERENCE")
                    && seeds.contains(i.at(0).ref())) definitions.addAll(i.at(2).refs());
        if (seeds.isEmpty() || definitions.isEmpty())
            return Outcome.refused(
                    "step.no_product",
                    "The file does not say which of its products " + name + " is.",
                    "Take it out in the program that wrote it.");
        for (long definition : definitions) {
            long formation = instance(definition, "PRODUCT_DEFINITION")
                    .map(d -> d.at(2).ref())
                    .orElse(-1L);
            long product = instance(formation, "PRODUCT_DEFINITION_FORMATION")
                    .map(f -> f.at(2).ref())
                    .orElse(-1L);
            if (!kept.containsKey(product))
                return Outcome.refused("step.no_product", name + " is no product of the file.", "");
            boolean above = kept.values().stream()
                    .anyMatch(i -> i.type().equals("NEXT_ASSEMBLY_USAGE_OCCURRENCE")
                            && i.at(3).ref() == definition);
            boolean used = kept.values().stream()
                    .anyMatch(i -> i.type().equals("NEXT_ASSEMBLY_USAGE_OCCURRENCE")
                            && i.at(4).ref() == definition);
            if (above || !used)
                return Outcome.refused(
                        "step.parts",
                        name + (above ? " has parts of its own in the file." : " is what the file is of."),
                        "Take it out in the program that wrote it.");
            seeds.addAll(List.of(definition, formation, product));
            products.add(kept.get(product).at(0).text());
        }
        return Outcome.granted(seeds);
    }

    private static boolean isProved(
            StepModel was, byte[] written, Set<String> names, Set<String> products, Set<Long> lost) {
        if (!(read(written) instanceof Outcome.Granted<StepModel> read)) return false;
        StepModel is = read.value();
        List<String> left = was.externals().stream()
                .map(External::name)
                .filter(n -> !names.contains(n.strip()))
                .toList();
        List<Usage> used =
                was.usages().stream().filter(u -> !products.contains(u.child())).toList();
        return is.said().equals(was.said())
                && is.externals().stream().map(External::name).toList().equals(left)
                && is.usages().equals(used)
                && is.products()
                        .equals(was.products().stream()
                                .filter(p -> !products.contains(p.id()))
                                .toList())
                && lost.containsAll(StepStatements.of(written).lost());
    }
}
