package mintshelf.core.revision;

import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;

/** Which label a revision gets. Labels that were used are never given again. */
public final class RevisionRules {
    private RevisionRules() {}

    /**
     * The label after those in use: the one that follows the latest of them, or the first.
     *
     * @param used every label that the document's revisions carry or carried outside the house
     */
    public static Outcome<String> nextLabel(RevisionSeries series, List<String> used) {
        Optional<String> latest = used.stream().filter(series::accepts).max(series::compare);
        return latest.isEmpty() ? Outcome.granted(series.first()) : series.next(latest.get());
    }
}
