package mintshelf.core.model.shape;

import java.util.List;

/**
 * The faces of a product's solids.
 *
 * @param product its id; empty where the file does not say whose they are
 * @param solids how many closed solids they make
 */
public record Body(String product, int solids, List<Face> faces) {
    public Body {
        faces = List.copyOf(faces);
    }

    /** How far it reaches. */
    public Extent extent() {
        Extent all = Extent.NONE;
        for (Face face : faces) all = all.with(face.extent());
        return all;
    }
}
