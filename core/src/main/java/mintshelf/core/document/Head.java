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
 */
public record Head(long version, int number, long revision, ContentHash content, ContentHash digest, boolean written) {
    /** A version that a person brought. */
    public Head(long version, int number, long revision, ContentHash content, ContentHash digest) {
        this(version, number, revision, content, digest, false);
    }
}
