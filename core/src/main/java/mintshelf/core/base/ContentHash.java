package mintshelf.core.base;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;

/** A SHA-256 hash (FIPS 180-4) that compares by value. */
public final class ContentHash implements Comparable<ContentHash> {
    private final byte[] bytes;

    private ContentHash(byte[] bytes) {
        this.bytes = bytes;
    }

    /** @throws IllegalArgumentException unless 32 bytes are given */
    public static ContentHash of(byte[] bytes) {
        if (bytes.length != 32) throw new IllegalArgumentException("A SHA-256 hash has 32 bytes, not " + bytes.length);
        return new ContentHash(bytes.clone());
    }

    public static ContentHash ofHex(String hex) {
        return of(HexFormat.of().parseHex(hex));
    }

    /** The hash of {@code length} bytes from {@code from}. */
    public static ContentHash compute(byte[] data, int from, int length) {
        MessageDigest digest = digest();
        digest.update(data, from, length);
        return new ContentHash(digest.digest());
    }

    public static ContentHash compute(byte[] data) {
        return compute(data, 0, data.length);
    }

    /** A fresh SHA-256 computation. */
    public static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every Java has SHA-256", e);
        }
    }

    public byte[] bytes() {
        return bytes.clone();
    }

    public String hex() {
        return HexFormat.of().formatHex(bytes);
    }

    /** The first twelve hexadecimal digits, for people. */
    public String shortHex() {
        return hex().substring(0, 12);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ContentHash hash && Arrays.equals(bytes, hash.bytes);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(bytes);
    }

    @Override
    public int compareTo(ContentHash other) {
        return Arrays.compareUnsigned(bytes, other.bytes);
    }

    @Override
    public String toString() {
        return hex();
    }
}
