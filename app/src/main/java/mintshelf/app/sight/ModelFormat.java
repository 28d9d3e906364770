package mintshelf.app.sight;

import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;

/** How the viewer of models reads a file. */
public final class ModelFormat {
    private static final Set<String> MESHES = Set.of("stl", "3mf", "gltf", "glb", "obj");

    private ModelFormat() {}

    /** step, stl, 3mf, gltf, glb, obj; nothing for what is no model. */
    public static Optional<String> of(VersionRow version) {
        VersionRow drawn = version.drawn();
        if (drawn.content().kind() == ContentKind.STEP) return Optional.of("step");
        return Optional.of(FileName.of(drawn.fileName()).extension()).filter(MESHES::contains);
    }
}
