package mintshelf.core.model.compare;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import mintshelf.core.base.Outcome;
import mintshelf.core.model.shape.Body;
import mintshelf.core.model.step.StepAssembly;
import mintshelf.core.model.step.StepFaces;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;

/**
 * A model as it is held against another one: what it says of its products, where its components stand, the faces of its solids.
 *
 * @param lost faces that could not be read
 * @param cut whether the file has more than is taken in
 */
public record ModelFile(StepModel says, List<StepAssembly.Placed> placed, List<Body> bodies, int lost, boolean cut) {
    public ModelFile {
        placed = List.copyOf(placed);
        bodies = List.copyOf(bodies);
    }

    /** Bytes that can be read again from their beginning. */
    @FunctionalInterface
    public interface Source {
        InputStream open() throws IOException;
    }

    /** Reads a file of ISO 10303-21; refused where it is none. O(bytes). */
    public static Outcome<ModelFile> read(Source source) throws IOException {
        Outcome<StepModel> model;
        try (InputStream in = source.open()) {
            model = StepReader.read(in);
        }
        if (!(model instanceof Outcome.Granted<StepModel> granted))
            return Outcome.refused(model.refusal().orElseThrow());
        StepModel says = granted.value();
        StepFaces.Faces faces;
        try (InputStream in = source.open()) {
            faces = StepFaces.read(in, says.millimetres());
        }
        List<StepAssembly.Placed> placed = List.of();
        if (!says.externals().isEmpty()) {
            try (InputStream in = source.open()) {
                placed = StepAssembly.read(in, says.millimetres()).placed();
            }
        }
        return Outcome.granted(new ModelFile(says, placed, faces.bodies(), faces.lost(), faces.cut()));
    }
}
