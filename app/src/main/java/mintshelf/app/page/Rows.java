package mintshelf.app.page;

import java.util.List;
import java.util.stream.Collectors;
import mintshelf.app.sight.Seen;

/** Helps lists of documents. */
public final class Rows {
    private Rows() {}

    /** Their ids as an address carries them. */
    public static String joined(List<Seen> seen) {
        return seen.stream().map(s -> Long.toString(s.spine().id())).collect(Collectors.joining(","));
    }
}
