package mintshelf.core.document;

import mintshelf.core.base.ContentHash;

/**
 * The latest version of a line.
 *
 * @param version its id
 * @param number its number
 * @param revision the id of its revision
 * @param content hash of its file
 * @param digest what sign-offs bind to
 */
public record Head(long version, int number, long revision, ContentHash content, ContentHash digest) {}
