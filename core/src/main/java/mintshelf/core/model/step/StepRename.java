package mintshelf.core.model.step;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.Outcome;

/** Changes names in an exchange file and leaves every other byte as it was. */
public final class StepRename {
    private StepRename() {}

    private record Change(long to, String name) {}

    /**
     * Puts other names in the place of those of external files. O(bytes).
     *
     * @param names new names by the old ones
     * @return the file, or a refusal when it is signed, or does not refer to one of them
     */
    public static Outcome<byte[]> externals(byte[] file, Map<String, String> names) {
        return externals(file, names, Map.of());
    }

    /**
     * As {@link #externals(byte[], Map)}, and puts other ids and names in the place of those of products.
     *
     * @param products what a product is called from now on, by its id
     */
    public static Outcome<byte[]> externals(
            byte[] file, Map<String, String> names, Map<String, StepTexts.Called> products) {
        Outcome<StepModel> read;
        try {
            read = StepReader.read(new ByteArrayInputStream(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        if (!(read instanceof Outcome.Granted<StepModel> model))
            return Outcome.refused(read.refusal().orElseThrow());
        if (StepReader.isSigned(model.value())) {
            return Outcome.refused(
                    "step.signed", "The file is signed; a changed one would not be.", "Change it where it was signed.");
        }
        List<String> missing = names.keySet().stream()
                .filter(n -> model.value().externals().stream()
                        .noneMatch(e -> e.name().equals(n)))
                .sorted()
                .toList();
        if (!missing.isEmpty()) {
            return Outcome.refused(
                    "step.no_reference", "The file does not refer to " + String.join(", ", missing) + ".", "");
        }
        TreeMap<Long, Change> changes = new TreeMap<>();
        for (StepTexts.Said said : StepTexts.of(file)) {
            String anew = said.anew(products);
            if (!anew.equals(said.text())) changes.put(said.from(), new Change(said.to(), anew));
        }
        for (StepModel.External external : model.value().externals()) {
            String name = names.getOrDefault(external.name(), external.name());
            if (name.equals(external.name())) continue;
            external.places().forEach(place -> changes.put(place[0], new Change(place[1], name)));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream(file.length + 64 * changes.size());
        int at = 0;
        for (Map.Entry<Long, Change> change : changes.entrySet()) {
            int from = Math.toIntExact(change.getKey());
            out.write(file, at, from - at);
            out.writeBytes(StepText.encode(change.getValue().name()).getBytes(StandardCharsets.US_ASCII));
            at = Math.toIntExact(change.getValue().to());
        }
        out.write(file, at, file.length - at);
        return Outcome.granted(out.toByteArray());
    }
}
