package mintshelf.companion.watch;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** Whether a program has a file open for writing. */
public final class LetGo {
    private static final Path PROCESSES = Path.of("/proc");
    /** Access modes of open(2) in the flags of a descriptor, in octal. */
    private static final int MODE = 3;

    private LetGo() {}

    /** Whether any program of this person has it open for writing; what cannot be told is taken for let go. */
    public static boolean isHeld(Path file) {
        if (!Files.exists(file)) return false;
        return Files.isDirectory(PROCESSES.resolve("self/fd")) ? isOpen(file) : isLocked(file);
    }

    /** Descriptors of other processes, as far as they are one's own (proc(5)). */
    private static boolean isOpen(Path file) {
        String self = Long.toString(ProcessHandle.current().pid());
        try (DirectoryStream<Path> all = Files.newDirectoryStream(PROCESSES, "[0-9]*")) {
            Path real = file.toRealPath();
            for (Path process : all) {
                if (!process.getFileName().toString().equals(self) && hasOpen(process, real)) return true;
            }
        } catch (IOException e) {
            return false;
        }
        return false;
    }

    private static boolean hasOpen(Path process, Path file) {
        try (DirectoryStream<Path> descriptors = Files.newDirectoryStream(process.resolve("fd"))) {
            for (Path d : descriptors) {
                if (Files.readSymbolicLink(d).equals(file) && writes(process, d)) return true;
            }
        } catch (IOException | RuntimeException e) {
            return false; // another person's, or ended meanwhile
        }
        return false;
    }

    private static boolean writes(Path process, Path descriptor) throws IOException {
        for (String line : Files.readAllLines(process.resolve("fdinfo").resolve(descriptor.getFileName()))) {
            if (line.startsWith("flags:"))
                return (Integer.parseInt(line.substring(6).strip(), 8) & MODE) != 0;
        }
        return false;
    }

    /** Where a program that writes keeps others out, a lock is not to be had. */
    private static boolean isLocked(Path file) {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            FileLock lock = channel.tryLock();
            if (lock == null) return true;
            lock.release();
            return false;
        } catch (OverlappingFileLockException e) {
            return true;
        } catch (IOException e) {
            return Files.isWritable(file);
        }
    }
}
