package mintshelf.core.revision;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/** Which label a revision gets. Labels that were used are never given again. */
public final class RevisionRules {
    private RevisionRules() {}

    /**
     * The label of a document's first revision: what its sheet says, else the first of the series where the label is taken at the
     * start. A document that comes from elsewhere may come as B; what the series does not know is refused.
     *
     * @param said what the sheet or the person says; blank for nothing
     */
    public static Outcome<Optional<String>> firstLabel(RevisionSeries series, boolean atStart, String said) {
        String label = said.strip();
        if (label.isEmpty()) return Outcome.granted(atStart ? Optional.of(series.first()) : Optional.empty());
        Optional<String> known = Stream.of(label, label.toUpperCase(Locale.ROOT))
                .filter(series::accepts)
                .findFirst();
        if (known.isPresent()) return Outcome.granted(known);
        return Outcome.refused(
                "revision.unknown",
                "“" + Texts.shorten(label, 20) + "” is no revision of the series " + series.says() + ".",
                "Type one that is, or empty the field to begin with " + series.first() + ".");
    }

    /**
     * The label after those in use: the one that follows the latest of them, or the first.
     *
     * @param used every label that the document's revisions carry or carried outside the house
     */
    public static Outcome<String> nextLabel(RevisionSeries series, List<String> used) {
        Optional<String> latest = latest(series, used);
        return latest.isEmpty() ? Outcome.granted(series.first()) : series.next(latest.get());
    }

    private static Optional<String> latest(RevisionSeries series, List<String> used) {
        return used.stream().filter(series::accepts).max(series::compare);
    }

    /** The labels that are usual next: the one that follows, and where a series has another kind of step, that one. */
    public static List<String> steps(RevisionSeries series, List<String> used) {
        return latest(series, used).map(series::steps).orElseGet(() -> List.of(series.first()));
    }

    /**
     * A label that somebody wants, which may skip ahead: one of the series, behind all that were used. Labels that are skipped are not
     * given any more.
     */
    public static Outcome<String> skipTo(RevisionSeries series, List<String> used, String wanted) {
        String label = wanted.strip();
        Optional<String> known = Stream.of(label, label.toUpperCase(Locale.ROOT))
                .filter(series::accepts)
                .findFirst();
        if (known.isEmpty()) {
            return Outcome.refused(
                    "revision.unknown",
                    "“" + Texts.shorten(label, 20) + "” is no revision of the series " + series.says() + ".",
                    "Type one that is.");
        }
        Optional<String> latest = latest(series, used);
        if (latest.isPresent() && series.compare(known.get(), latest.get()) <= 0) {
            return Outcome.refused(
                    "revision.back",
                    "“" + known.get() + "” does not come after “" + latest.get() + "”, which was given already.",
                    "Type a later one.");
        }
        // As the series writes it, whatever letters were typed.
        return Outcome.granted(
                series.label(series.position(known.get()).orElseThrow()).orElseThrow());
    }
}
