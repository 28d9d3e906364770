package mintshelf.companion.watch;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import mintshelf.core.base.ContentHash;

/** The hash of a file's bytes, read in portions. */
public final class FileHash {
    private FileHash() {}

    /** The hash in hex; O(bytes). */
    public static String of(Path file) throws IOException {
        MessageDigest digest = ContentHash.digest();
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = Files.newInputStream(file)) {
            for (int n = in.read(buffer); n > 0; n = in.read(buffer)) digest.update(buffer, 0, n);
        }
        return ContentHash.of(digest.digest()).hex();
    }
}
