package mintshelf.core.document;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Map;
import java.util.TreeMap;
import mintshelf.core.base.ContentHash;

/**
 * The hash that a sign-off binds to: over the content and the facts, not the file alone, for two versions can share bytes and a
 * changed material would otherwise be signed unseen.
 */
public final class VersionDigest {
    private VersionDigest() {}

    /** SHA-256 over the content's hash and the facts in the order of their names, each preceded by its length. */
    public static ContentHash of(ContentHash content, Map<String, String> facts) {
        MessageDigest digest = ContentHash.digest();
        digest.update(content.bytes());
        new TreeMap<>(facts).forEach((name, value) -> {
            add(digest, name);
            add(digest, value);
        });
        return ContentHash.of(digest.digest());
    }

    /**
     * The same over what the version refers to as well: a component that moved on makes another version, though the bytes are
     * the same.
     *
     * @param references the digest of each captured component by the path as written; without any it is the digest of content and
     *     facts alone
     */
    public static ContentHash of(ContentHash content, Map<String, String> facts, Map<String, ContentHash> references) {
        ContentHash own = of(content, facts);
        if (references.isEmpty()) return own;
        MessageDigest digest = ContentHash.digest();
        digest.update(own.bytes());
        new TreeMap<>(references).forEach((path, component) -> {
            add(digest, path);
            digest.update(component.bytes());
        });
        return ContentHash.of(digest.digest());
    }

    private static void add(MessageDigest digest, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        digest.update((byte) (bytes.length >> 24));
        digest.update((byte) (bytes.length >> 16));
        digest.update((byte) (bytes.length >> 8));
        digest.update((byte) bytes.length);
        digest.update(bytes);
    }
}
