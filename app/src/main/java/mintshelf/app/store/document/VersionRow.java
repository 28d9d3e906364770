package mintshelf.app.store.document;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.content.StoredContent;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.VersionName;

/**
 * A version as the strip and the history show it.
 *
 * @param number on its line
 * @param base number of the version that its author started from, {@code copyOf} of the one whose content it brings back
 * @param trial number of the trial on whose line it is; 0 on the main one
 */
public record VersionRow(
        long id,
        int number,
        long revision,
        String fileName,
        StoredContent content,
        ContentHash digest,
        String comment,
        long author,
        String authorName,
        MadeBy madeBy,
        Instant at,
        Optional<Integer> base,
        Optional<Integer> copyOf,
        Optional<Neutral> neutral,
        int trial) {
    /** What it is called. */
    public VersionName name() {
        return new VersionName(trial, number);
    }

    /**
     * The neutral copy by which a version is shown whose own file only its own program reads.
     *
     * @param number of the version to which it belongs
     * @param current whether it shows this version's bytes
     */
    public record Neutral(int number, NeutralForm form, StoredContent content, String fileName, boolean current) {}

    /** The version as it is drawn, measured and compared: with its neutral copy in the place of a file that nobody here draws. */
    public VersionRow drawn() {
        return neutral.map(this::as).orElse(this);
    }

    /** As {@link #drawn}, only where the copy shows this version: what is proved of it is proved of the version. */
    public VersionRow drawnNow() {
        return neutral.filter(Neutral::current).map(this::as).orElse(this);
    }

    private VersionRow as(Neutral copy) {
        return new VersionRow(
                id,
                number,
                revision,
                copy.fileName(),
                copy.content(),
                digest,
                comment,
                author,
                authorName,
                madeBy,
                at,
                base,
                copyOf,
                Optional.empty(),
                trial);
    }

    private VersionRow with(Optional<Neutral> copy) {
        return new VersionRow(
                id,
                number,
                revision,
                fileName,
                content,
                digest,
                comment,
                author,
                authorName,
                madeBy,
                at,
                base,
                copyOf,
                copy,
                trial);
    }

    /** Whether it is to be shown by a neutral copy. */
    boolean wantsNeutral() {
        return NeutralForm.isWanted(content.kind(), FileName.of(fileName));
    }

    /** With the copies of its document. */
    VersionRow shownBy(long item, List<NeutralStore.Copy> copies, Set<Long> out) {
        return wantsNeutral() ? with(NeutralStore.shows(this, item, copies, out)) : this;
    }

    /** Whose it is, in words: what the shelf wrote it wrote for somebody. */
    public String by() {
        return madeBy == MadeBy.STAMPED ? "Mint Shelf for " + authorName : authorName;
    }

    /** How a version came about. */
    public enum MadeBy {
        FILED,
        CHECKED_IN,
        REINSTATED,
        ADOPTED,
        STAMPED,
        /** It came from an old drive, as it was. */
        TAKEN_IN,
        /** The names of other files in it were written anew. */
        REWRITTEN,
        /** What became of the document that it began from came into it. */
        TAKEN_UP
    }
}
