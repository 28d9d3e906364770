package mintshelf.core.model.shape;

import java.util.List;

/** Joins faces into what people call them: holes, slots, pockets, bosses, fillets, chamfers. */
public final class Features {
    private Features() {}

    /** The features of a body; each face is in one of them, or in none. O(faces + edges). */
    public static List<Feature> of(Body body) {
        Part part = new Part(body);
        new TurnedFeatures(part).find();
        new PlaneFeatures(part).find();
        return List.copyOf(part.found);
    }
}
