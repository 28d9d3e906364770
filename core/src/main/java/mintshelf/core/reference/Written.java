package mintshelf.core.reference;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.ExternalReference;
import mintshelf.core.model.step.StepModel;

/**
 * A file that another file names.
 *
 * @param path as written in the file, at most {@link #LONGEST_PATH} characters
 * @param quantity how often it stands there, at least 1
 */
public record Written(Role role, String path, int quantity) {
    public static final int LONGEST_PATH = 1000;
    /** References that a file may have; what is beyond is left out, and said. */
    public static final int MOST = 20_000;

    /** What a reference is for. */
    public enum Role {
        /** A model that stands in an assembly. */
        COMPONENT("component"),
        /** A drawing that is shown inside another one. */
        SHEET("drawing inside"),
        /** A picture or page that is placed on a drawing. */
        IMAGE("picture");

        private final String words;

        Role(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Written {
        if (path.length() > LONGEST_PATH) path = path.substring(0, LONGEST_PATH);
        if (quantity < 1) quantity = 1;
    }

    /** External files of a model (ISO 10303-21 DOCUMENT_FILE, external identification), each once, in the order of the file. */
    public static List<Written> of(StepModel model) {
        return merged(model.externals().stream()
                .map(e -> new Written(Role.COMPONENT, e.name().strip(), e.count()))
                .toList());
    }

    /** External references, pictures and pages of a drawing, each once, in the order of the file. */
    public static List<Written> of(DxfDrawing drawing) {
        return merged(ExternalReference.of(drawing).stream()
                .map(r -> new Written(
                        r.isPicture() ? Role.IMAGE : Role.SHEET, r.path().strip(), r.count()))
                .toList());
    }

    private static List<Written> merged(List<Written> all) {
        Map<String, Written> byPath = new LinkedHashMap<>();
        for (Written w : all) {
            if (w.path().isEmpty() || byPath.size() == MOST) continue;
            byPath.merge(w.path(), w, (a, b) -> new Written(a.role(), a.path(), plus(a.quantity(), b.quantity())));
        }
        return new ArrayList<>(byPath.values());
    }

    private static int plus(int a, int b) {
        return (int) Math.min(Integer.MAX_VALUE, (long) a + b);
    }
}
