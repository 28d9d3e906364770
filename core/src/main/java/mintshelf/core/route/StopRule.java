package mintshelf.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Right;

/**
 * What a stop says beside its class. Who sees what stands in it is a matter of its class alone: what is under way is seen by those who
 * see work in preparation, and nobody learns of it otherwise.
 *
 * @param fetch the right by which its files are fetched; empty for whoever sees them. Who holds a document fetches it always
 * @param facts whether facts may be typed here, by those whom each fact names
 */
public record StopRule(Optional<Right> fetch, boolean facts) {
    public static final StopRule USUAL = new StopRule(Optional.empty(), true);

    /** What it says, as the end of a sentence; empty for the usual. */
    public String says() {
        List<String> says = new ArrayList<>();
        fetch.ifPresent(r -> says.add("its files are fetched by those who may " + r.words()));
        if (!facts) says.add("its facts do not change");
        return String.join("; ", says);
    }
}
