package mintshelf.core.drawing.pdf;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/**
 * Fonts of the machine with letters that the shipped one lacks: Chinese, Japanese and Korean ones above all. Which Debian packages
 * bring them, docs/serving.md says. TrueType outlines only, for those can be embedded in part.
 */
public final class SystemFonts {
    /** Names as Debian's packages give them, the ones with most letters first. */
    private static final List<String> WANTED = List.of(
            "DroidSansFallbackFull.ttf",
            "DroidSansFallback.ttf",
            "NanumGothic.ttf",
            "ipag.ttf",
            "UnDotum.ttf",
            "FreeSans.ttf");

    private static final int DEEPEST = 4;
    private static final long LARGEST = 32L << 20;

    private SystemFonts() {}

    /** The fonts below a folder such as /usr/share/fonts, whole; none where there are none. O(files of the folder). */
    public static List<byte[]> below(Path folder) {
        if (!Files.isDirectory(folder)) return List.of();
        List<Path> found = new ArrayList<>();
        try (Stream<Path> files = Files.walk(folder, DEEPEST)) {
            files.filter(f -> WANTED.contains(f.getFileName().toString())).forEach(found::add);
        } catch (IOException | UncheckedIOException e) {
            return List.of(); // a folder that cannot be read has no fonts for us
        }
        found.sort((a, b) -> Integer.compare(
                WANTED.indexOf(a.getFileName().toString()),
                WANTED.indexOf(b.getFileName().toString())));
        List<byte[]> fonts = new ArrayList<>();
        for (Path file : found) {
            try {
                if (Files.size(file) <= LARGEST) fonts.add(Files.readAllBytes(file));
            } catch (IOException e) {
                // One that cannot be read is as one that is not there.
            }
        }
        return fonts;
    }
}
