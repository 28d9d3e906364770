package mintshelf.app.store.structure;

import java.util.Optional;
import mintshelf.core.base.ContentHash;
import mintshelf.core.reference.Written;

/**
 * A reference of a version, with what it means.
 *
 * @param seq its place in the file, from 1
 * @param component the document that is meant; empty while it is missing or ambiguous
 */
public record Reference(int seq, Written written, State state, Optional<Component> component) {
    /** Whether the document that is meant is known. */
    public enum State {
        FOUND,
        MISSING,
        AMBIGUOUS
    }

    /** How the captured version is known. */
    public enum Source {
        /** The desk's record said what the author worked with. */
        DESK,
        /** It was the latest when the parent was checked in. */
        ASSUMED,
        /** A person chose. */
        PICKED
    }

    /**
     * The document that is meant, and its version that the author worked with.
     *
     * @param version id of the captured version
     * @param number of the captured version
     * @param substance number of the version whose content it carries: what out of date goes by
     * @param digest of the captured version
     */
    public record Component(long item, long version, int number, int substance, ContentHash digest, Source source) {}

    public boolean isFound() {
        return state == State.FOUND;
    }
}
