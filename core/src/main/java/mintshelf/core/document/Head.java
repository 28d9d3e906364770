package mintshelf.core.document;

import mintshelf.core.base.ContentHash;

/**
 * The latest version of a line.
 *
 * @param version its id
 * @param number its number
 * @param revision the id of its revision
 * @param content hash of its file
 * @param digest over content and facts as they were when it was made
 * @param written whether the shelf made it, by writing into the sheet of the version before
 * @param trial number of the trial on whose line it is; 0 on the main one
 */
public record Head(
        long version, int number, long revision, ContentHash content, ContentHash digest, boolean written, int trial) {
    /** A version of the main line. */
    public Head(long version, int number, long revision, ContentHash content, ContentHash digest, boolean written) {
        this(version, number, revision, content, digest, written, 0);
    }

    /** What it is called. */
    public VersionName name() {
        return new VersionName(trial, number);
    }

    /** A version of the main line that a person brought. */
    public Head(long version, int number, long revision, ContentHash content, ContentHash digest) {
        this(version, number, revision, content, digest, false);
    }
}
