package mintshelf.core.access;

import java.util.OptionalLong;

/** Where a grant holds. Each part may be empty (anywhere); all that are given must match. */
public record Scope(OptionalLong shelf, OptionalLong folder, OptionalLong kind) {
    public static final Scope EVERYWHERE = new Scope(OptionalLong.empty(), OptionalLong.empty(), OptionalLong.empty());

    public static Scope shelf(long id) {
        return new Scope(OptionalLong.of(id), OptionalLong.empty(), OptionalLong.empty());
    }

    /** A folder's scope covers the folders below it. */
    public boolean covers(Place place) {
        return (shelf.isEmpty() || shelf.getAsLong() == place.shelf())
                && (folder.isEmpty() || place.folders().contains(folder.getAsLong()))
                && (kind.isEmpty() || kind.getAsLong() == place.kind());
    }
}
