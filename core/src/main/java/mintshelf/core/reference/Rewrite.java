package mintshelf.core.reference;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.ExternalReference;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.model.step.StepRename;
import mintshelf.core.model.step.StepTexts;

/**
 * Other names for the files that a file refers to: DXF (blocks of other drawings, pictures, pages) and STEP (ISO 10303-21, DOCUMENT_FILE).
 * Names are exchanged, every other byte stays, and both files are read to prove it.
 */
public final class Rewrite {
    private Rewrite() {}

    /** A name as it stands in a file: where, and what it says; of a product, as whose. */
    private record Stands(int from, int to, Written says, Optional<StepTexts.Said> called) {
        Stands(int from, int to, Written says) {
            this(from, to, says, Optional.empty());
        }
    }

    /** What a form of file can be read and rewritten by. */
    private interface Form {
        Outcome<List<Stands>> read(byte[] file);

        Outcome<byte[]> write(byte[] file, Map<String, String> names);

        /** What a name that is no file's reads from now on. */
        default String called(StepTexts.Said said) {
            return said.text();
        }
    }

    /**
     * Exchanges names in a drawing. O(bytes).
     *
     * @param names new paths by those that are written, as {@link Written#path()} says them
     * @return the file; refused where it does not refer to one of them, would name one file in place of two, or does not say afterwards
     *     what it should
     */
    public static Outcome<byte[]> drawing(byte[] file, Map<String, String> names) {
        return rewrite(file, names, new Drawing());
    }

    /** As {@link #drawing}, in an exchange file of a model; one that is signed is refused. */
    public static Outcome<byte[]> model(byte[] file, Map<String, String> names) {
        return model(file, names, Map.of());
    }

    /**
     * As {@link #model(byte[], Map)}; what stands in it under another name is called otherwise, too.
     *
     * @param products what a product is called from now on, by its id; those that the file does not have are passed over
     */
    public static Outcome<byte[]> model(
            byte[] file, Map<String, String> names, Map<String, StepTexts.Called> products) {
        return rewrite(file, names, new Model(products));
    }

    private static Outcome<byte[]> rewrite(byte[] file, Map<String, String> names, Form form) {
        Outcome<List<Stands>> read = form.read(file);
        if (!(read instanceof Outcome.Granted<List<Stands>> before))
            return Outcome.refused(read.refusal().orElseThrow());
        Map<String, String> raw = new HashMap<>();
        Set<String> kept = new HashSet<>();
        for (Stands one : before.value()) {
            if (one.called().isPresent()) continue;
            String path = one.says().path();
            String anew = names.get(path.strip());
            if (anew != null) raw.put(path, anew);
            else kept.add(path.strip());
        }
        for (Map.Entry<String, String> name : names.entrySet()) {
            if (before.value().stream()
                    .noneMatch(
                            s -> s.called().isEmpty() && s.says().path().strip().equals(name.getKey()))) {
                return Outcome.refused(
                        "rewrite.none",
                        "The file does not refer to " + name.getKey() + ".",
                        "Look at it as it is now.");
            }
            if (!kept.add(name.getValue())) {
                return Outcome.refused(
                        "rewrite.two",
                        "The file refers to " + name.getValue() + " already; two names would become one.",
                        "Change it in the program that wrote it.");
            }
        }
        Outcome<byte[]> written = form.write(file, raw);
        if (!(written instanceof Outcome.Granted<byte[]> bytes)) return written;
        return isProved(file, before.value(), bytes.value(), form, raw)
                ? written
                : Outcome.refused(
                        "rewrite.differs",
                        "The file as written does not read as it should.",
                        "Change the name in the program that wrote it; nothing was changed.");
    }

    /** Read again: the same names in the same places but for those that were exchanged, and the same bytes around them. */
    private static boolean isProved(
            byte[] before, List<Stands> were, byte[] after, Form form, Map<String, String> names) {
        if (!(form.read(after) instanceof Outcome.Granted<List<Stands>> read)) return false;
        List<Stands> are = read.value();
        if (are.size() != were.size()) return false;
        int at = 0;
        int now = 0;
        for (int i = 0; i < were.size(); i++) {
            Stands old = were.get(i);
            Stands one = are.get(i);
            Written says = old.says();
            String path = old.called().isPresent()
                    ? form.called(old.called().get())
                    : names.getOrDefault(says.path(), says.path());
            if (!one.says().equals(new Written(says.role(), path, says.quantity()))) return false;
            if (!Arrays.equals(before, at, old.from(), after, now, one.from())) return false;
            at = old.to();
            now = one.to();
        }
        return Arrays.equals(before, at, before.length, after, now, after.length);
    }

    private static List<Stands> inOrder(List<Stands> all) {
        all.sort(Comparator.comparingInt(Stands::from));
        return all;
    }

    private static final class Drawing implements Form {
        @Override
        public Outcome<List<Stands>> read(byte[] file) {
            return DxfDrawing.read(file)
                    .map(drawing -> inOrder(new ArrayList<>(ExternalReference.of(drawing).stream()
                            .map(r -> new Stands(
                                    r.place().from(),
                                    r.place().to(),
                                    new Written(
                                            r.isPicture() ? Written.Role.IMAGE : Written.Role.SHEET,
                                            r.path(),
                                            r.count())))
                            .toList())));
        }

        @Override
        public Outcome<byte[]> write(byte[] file, Map<String, String> names) {
            return DxfDrawing.read(file) instanceof Outcome.Granted<DxfDrawing> drawing
                    ? ExternalReference.renamed(drawing.value(), names)
                    : Outcome.refused("dxf.none", "It is no drawing.", "");
        }
    }

    private static final class Model implements Form {
        private final Map<String, StepTexts.Called> products;

        Model(Map<String, StepTexts.Called> products) {
            this.products = products;
        }

        @Override
        public String called(StepTexts.Said said) {
            return said.anew(products);
        }

        @Override
        public Outcome<List<Stands>> read(byte[] file) {
            try {
                return StepReader.read(new ByteArrayInputStream(file)).map(model -> stands(model, file));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        private List<Stands> stands(StepModel model, byte[] file) {
            List<Stands> all = new ArrayList<>();
            // Only where one of them is called otherwise: else every byte of them is held against what it was.
            for (StepTexts.Said said : products.isEmpty() ? List.<StepTexts.Said>of() : StepTexts.of(file)) {
                all.add(new Stands(
                        Math.toIntExact(said.from()),
                        Math.toIntExact(said.to()),
                        new Written(Written.Role.COMPONENT, said.text(), 1),
                        Optional.of(said)));
            }
            for (StepModel.External external : model.externals()) {
                Written says = new Written(Written.Role.COMPONENT, external.name(), external.count());
                for (long[] place : external.places()) {
                    all.add(new Stands(Math.toIntExact(place[0]), Math.toIntExact(place[1]), says));
                }
            }
            return inOrder(all);
        }

        @Override
        public Outcome<byte[]> write(byte[] file, Map<String, String> names) {
            return StepRename.externals(file, names, products);
        }
    }
}
