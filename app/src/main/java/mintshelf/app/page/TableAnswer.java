package mintshelf.app.page;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.NotThere;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Answers with a table as a file that table programs open. */
public final class TableAnswer {
    private static final String WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    /** In front of a workbook that a page sends as text. */
    private static final String SENT = "base64:";

    private TableAnswer() {}

    /** The bytes of a table that a page sends: CSV as text, or a workbook as {@code base64:} and its bytes so. */
    public static byte[] sent(String text) {
        if (!text.startsWith(SENT)) return text.getBytes(StandardCharsets.UTF_8);
        try {
            return Base64.getDecoder().decode(text.substring(SENT.length()));
        } catch (IllegalArgumentException e) {
            return new byte[0];
        }
    }

    /**
     * @param name of the file, without its ending
     * @param format csv or xlsx; nothing else is there
     * @param sheet name of the sheet of a workbook
     */
    public static ResponseEntity<byte[]> of(String name, String format, String sheet, List<List<String>> rows) {
        boolean csv = format.equals("csv");
        if (!csv && !format.equals("xlsx")) throw new NotThere();
        return ResponseEntity.ok()
                .contentType(csv ? new MediaType("text", "csv", StandardCharsets.UTF_8) : MediaType.valueOf(WORKBOOK))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(name + "." + format, StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(csv ? TableFiles.csv(rows) : TableFiles.xlsx(sheet, rows));
    }
}
