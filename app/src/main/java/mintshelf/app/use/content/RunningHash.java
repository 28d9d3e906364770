package mintshelf.app.use.content;

import java.security.MessageDigest;
import mintshelf.core.base.ContentHash;

/** The hash of an upload's bytes so far. Read and written by one thread at a time. */
final class RunningHash {
    private final MessageDigest digest = ContentHash.digest();
    private long at;

    /** How many bytes are in it. */
    long at() {
        return at;
    }

    void add(byte[] bytes, int length) {
        digest.update(bytes, 0, length);
        at += length;
    }

    /** The hash of the whole; nothing can be added any more. */
    ContentHash end() {
        return ContentHash.of(digest.digest());
    }
}
