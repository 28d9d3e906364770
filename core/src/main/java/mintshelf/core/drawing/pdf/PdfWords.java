package mintshelf.core.drawing.pdf;

import java.io.IOException;
import java.io.StringWriter;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;

/** What a PDF says, line by line (ISO 32000-1, 14.8.2: text as it stands in the content). Scripts and attachments are not looked at. */
public final class PdfWords {
    private PdfWords() {}

    /**
     * Its lines, each once, page after page until there are letters enough or the time is up; nothing of what is encrypted or broken.
     *
     * @param most letters at most
     */
    public static List<String> of(byte[] file, int most, Duration longest) {
        long until = System.nanoTime() + longest.toNanos();
        Set<String> lines = new LinkedHashSet<>();
        int left = most;
        try (PDDocument document = Loader.loadPDF(file)) {
            PDFTextStripper stripper = new PDFTextStripper();
            stripper.setSortByPosition(true);
            for (int page = 1; page <= document.getNumberOfPages(); page++) {
                if (left < 2 || System.nanoTime() > until) break;
                stripper.setStartPage(page);
                stripper.setEndPage(page);
                StringWriter text = new StringWriter();
                stripper.writeText(document, text);
                for (String raw : text.toString().split("\\R")) {
                    String line = raw.strip().replaceAll("\\s+", " ");
                    if (line.length() < 2 || line.length() > left || !lines.add(line)) continue;
                    left -= line.length() + 1;
                }
            }
        } catch (IOException | RuntimeException | StackOverflowError e) {
            // Broken and encrypted ones say as much as could be read.
            return List.copyOf(lines);
        }
        return List.copyOf(lines);
    }
}
