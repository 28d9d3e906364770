package mintshelf.app.use.structure;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Optional;
import mintshelf.app.effect.Incoming;
import mintshelf.app.effect.VerifiedEntry;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.content.Upload;
import mintshelf.core.base.ContentHash;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;

/** A file that came back of a pack: out of an archive, or by itself out of a folder. */
sealed interface CameBack {
    /** How long its bytes wait to be taken. */
    Duration KEPT = Duration.ofDays(1);

    String path();

    /** In bytes, as it says of itself. */
    long size();

    /** Why it cannot be taken; nothing where it can be read. */
    Optional<String> trouble();

    /** Of its bytes, all of which are read: what is as it was sent need not be stored. */
    ContentHash hash() throws IOException;

    /** Its bytes as the actor's upload, complete. */
    Upload keep(Actor actor) throws IOException;

    static String name(String path) {
        return path.substring(path.replace('\\', '/').lastIndexOf('/') + 1);
    }

    /** A file in an archive that is open. */
    record Packed(ZipFile zip, ZipArchiveEntry entry, Incoming incoming) implements CameBack {
        @Override
        public String path() {
            return entry.getName();
        }

        @Override
        public long size() {
            return Math.max(0, entry.getSize());
        }

        @Override
        public Optional<String> trouble() {
            if (!zip.canReadEntryData(entry) || entry.getGeneralPurposeBit().usesEncryption())
                return Optional.of("It is encrypted, or packed in a way that is not read here.");
            return size() == 0 ? Optional.of("It is empty.") : Optional.empty();
        }

        @Override
        public ContentHash hash() throws IOException {
            MessageDigest digest = ContentHash.digest();
            try (InputStream in = new DigestInputStream(new VerifiedEntry(zip.getInputStream(entry), entry), digest)) {
                in.transferTo(OutputStream.nullOutputStream());
            }
            return ContentHash.of(digest.digest());
        }

        @Override
        public Upload keep(Actor actor) throws IOException {
            try (InputStream in = new VerifiedEntry(zip.getInputStream(entry), entry)) {
                return incoming.receive(actor, incoming.open(actor, name(path()), size(), KEPT), in);
            }
        }
    }

    /**
     * A file of a folder, which its sender has brought before.
     *
     * @param upload the sender's own, all of it there; nothing where it did not come
     */
    record Brought(String path, Optional<Upload> upload) implements CameBack {
        @Override
        public long size() {
            return upload.map(Upload::size).orElse(0L);
        }

        @Override
        public Optional<String> trouble() {
            return upload.isPresent()
                    ? Optional.empty()
                    : Optional.of("It did not come: it is empty, or was broken off on its way.");
        }

        @Override
        public ContentHash hash() {
            return upload.orElseThrow().hash().orElseThrow();
        }

        @Override
        public Upload keep(Actor actor) throws IOException {
            Upload whole = upload.orElseThrow();
            if (whole.state() != Upload.State.COMPLETE) throw new IOException("It was given up since");
            return whole;
        }
    }
}
