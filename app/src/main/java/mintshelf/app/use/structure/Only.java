package mintshelf.app.use.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import mintshelf.app.sight.Seen;

/** What rows are filtered by: their stage, and who holds them. */
final class Only {
    private Only() {}

    static final List<String> ORDER = List.of("released", "pending", "gone", "held");

    static List<String> of(Seen s) {
        List<String> all = new ArrayList<>();
        if (s.pending().isPresent()) all.add("pending");
        else all.add(s.current().released() ? "released" : "gone");
        if (s.all()) s.document().holder().ifPresent(h -> all.add("held-" + h.person()));
        return all;
    }

    static String words(String filter, Seen s) {
        return switch (filter) {
            case "released" -> "released";
            case "pending" -> "in preparation";
            case "gone" -> s.current().stage().name().toLowerCase(Locale.ROOT);
            default -> "held by " + s.document().holder().orElseThrow().name();
        };
    }
}
