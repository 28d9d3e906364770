package mintshelf.companion;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.StandardOpenOption;
import java.util.Optional;

/** One watch a desk: whoever has the lock. It goes with its program, however that ends. */
final class WatchLock implements AutoCloseable {
    private final FileChannel channel;

    private WatchLock(FileChannel channel) {
        this.channel = channel;
    }

    /** The lock of a desk; nothing where somebody watches it. */
    static Optional<WatchLock> of(DeskFolder desk) throws IOException {
        FileChannel channel = FileChannel.open(
                desk.root().resolve(".mint-desk-watch"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        try {
            FileLock lock = channel.tryLock();
            if (lock != null) return Optional.of(new WatchLock(channel));
        } catch (OverlappingFileLockException e) {
            // another one of this program
        }
        channel.close();
        return Optional.empty();
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
