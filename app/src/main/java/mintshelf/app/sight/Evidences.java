package mintshelf.app.sight;

import java.util.Optional;
import mintshelf.app.store.document.VersionRow;

/** How a version is named that a paper goes by, alone or beside an older one of it. */
public final class Evidences {
    private Evidences() {}

    public static String says(VersionRow version, Optional<VersionRow> old) {
        return old.map(o -> "version " + o.number() + " against " + version.number())
                .orElse("version " + version.number());
    }

    /** Where it is looked at. */
    public static String href(long item, VersionRow version, Optional<VersionRow> old) {
        return old.map(o -> "/documents/" + item + "/versions/" + version.number() + "/compare?old=" + o.number())
                .orElse("/documents/" + item + "?version=" + version.number());
    }
}
