package mintshelf.core.hold;

import java.util.List;
import java.util.regex.Pattern;
import mintshelf.core.document.FileName;

/**
 * Which of my held documents a returned file belongs to: by exact name, then by the name without the number that browsers put
 * behind a second download ("cone (1).dxf"). Where neither decides, the person is asked.
 */
public final class ReturnedFile {
    private static final Pattern SECOND_COPY = Pattern.compile(" ?\\(\\d{1,3}\\)$");

    private ReturnedFile() {}

    /** A held document and the name of its file. */
    public record Held(long document, String fileName) {}

    /** The documents that fit: exactly one decides, none or several ask. */
    public static List<Long> match(String name, List<Held> held) {
        FileName returned = FileName.of(name);
        List<Long> exact = fitting(returned.key(), held);
        if (!exact.isEmpty()) return exact;
        String stem = SECOND_COPY.matcher(returned.stem()).replaceFirst("");
        String extension = returned.extension();
        return fitting(
                FileName.of(extension.isEmpty() ? stem : stem + "." + extension).key(), held);
    }

    private static List<Long> fitting(String key, List<Held> held) {
        return held.stream()
                .filter(h -> FileName.of(h.fileName()).key().equals(key))
                .map(Held::document)
                .toList();
    }
}
