package mintshelf.app.page;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Packed;
import mintshelf.core.document.FileName;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;

/** Sends many files as one archive, streamed; equal names get a number. */
@Component
public class ZipAnswer {
    private final Contents contents;

    public ZipAnswer(Contents contents) {
        this.contents = contents;
    }

    /** Of one time for all: the same files make the same archive. */
    private static ZipEntry entry(String path) {
        ZipEntry entry = new ZipEntry(path);
        entry.setTimeLocal(LocalDateTime.of(1980, 1, 1, 0, 0));
        return entry;
    }

    /** @param says a text that goes along as {@code contents.txt} */
    public void send(String name, List<Packed> files, Optional<String> says, HttpServletResponse response)
            throws IOException {
        send(
                name,
                files,
                says.map(s -> Map.<String, Supplier<byte[]>>of(
                                "contents.txt", () -> s.getBytes(StandardCharsets.UTF_8)))
                        .orElse(Map.of()),
                response);
    }

    /** @param lists files that are made once the others are in it, by their names */
    public void send(String name, List<Packed> files, Map<String, Supplier<byte[]>> lists, HttpServletResponse response)
            throws IOException {
        response.setContentType("application/zip");
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename(name, StandardCharsets.UTF_8)
                        .build()
                        .toString());
        Set<String> used = new HashSet<>();
        ZipOutputStream out = new ZipOutputStream(response.getOutputStream(), StandardCharsets.UTF_8);
        for (Packed file : files) {
            // Names are asked when they are made; here stands who packs, whatever was let in before.
            String asked = FileName.path(file.path());
            int slash = asked.lastIndexOf('/') + 1;
            String path = asked;
            for (int i = 2; !used.add(path.toLowerCase(Locale.ROOT)); i++) {
                path = asked.substring(0, slash) + i + " " + asked.substring(slash);
            }
            Optional<byte[]> made = file.made().flatMap(Supplier::get);
            if (file.drawn() && made.isEmpty()) continue;
            out.putNextEntry(entry(path));
            if (made.isPresent()) out.write(made.get());
            else contents.send(file.content(), 0, file.content().size(), out);
            out.closeEntry();
        }
        for (Map.Entry<String, Supplier<byte[]>> list : lists.entrySet()) {
            out.putNextEntry(entry(list.getKey()));
            out.write(list.getValue().get());
            out.closeEntry();
        }
        out.finish();
    }
}
