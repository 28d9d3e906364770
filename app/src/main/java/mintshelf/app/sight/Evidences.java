package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.store.document.VersionRow;
import mintshelf.core.change.PaperSpot;

/** How a version is named that a paper goes by, alone or beside an older one of it. */
public final class Evidences {
    private Evidences() {}

    public static String says(VersionRow version, Optional<VersionRow> old) {
        return old.map(o -> "version " + o.number() + " against " + version.number())
                .orElse("version " + version.number());
    }

    /** As {@link #says(VersionRow, Optional)}, with the place in a paper. */
    public static String says(VersionRow version, Optional<VersionRow> old, Optional<PaperSpot> spot) {
        return says(version, old) + spot.map(s -> ", " + s.says()).orElse("");
    }

    /** Where it is looked at; of a paper at its place. */
    public static String href(long item, VersionRow version, Optional<VersionRow> old, Optional<PaperSpot> spot) {
        return spot.map(s ->
                        "/documents/" + item + "/versions/" + version.number() + "/sheet?layout=Page%20" + s.page())
                .orElseGet(() -> href(item, version, old));
    }

    /** Where it is looked at. */
    public static String href(long item, VersionRow version, Optional<VersionRow> old) {
        return old.map(o -> "/documents/" + item + "/versions/" + version.number() + "/compare?old=" + o.number())
                .orElse("/documents/" + item + "?version=" + version.number());
    }
}
