package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;

/** How the viewer of models reads a file. */
public final class ModelFormat {
    private ModelFormat() {}

    /** step, stl, 3mf, gltf, glb, obj; nothing for what is no model. */
    public static Optional<String> of(VersionRow version) {
        VersionRow drawn = version.drawn();
        if (drawn.content().kind() == ContentKind.STEP) return Optional.of("step");
        FileName name = FileName.of(drawn.fileName());
        return NeutralForm.isMesh(name) ? Optional.of(name.extension()) : Optional.empty();
    }
}
