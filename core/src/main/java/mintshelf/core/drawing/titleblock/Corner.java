package mintshelf.core.drawing.titleblock;

import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.DxfDrawing;

/**
 * The lower right corner of a sheet, where title blocks stand (ISO 5457:1999, clause 4.2): places are told from it, so that one map
 * serves sheets of several sizes.
 */
final class Corner {
    private Corner() {}

    /** The sheet's frame; of a drawing that cannot be flattened an empty one. O(bytes + primitives). */
    static Zones zones(DxfDrawing drawing) {
        return drawing.scene() instanceof Outcome.Granted<Scene> scene ? Zones.of(scene.value()) : Zones.of(Box.EMPTY);
    }
}
