package mintshelf.app.effect;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipInputStream;
import mintshelf.core.base.Outcome;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.DataFormatter;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.usermodel.Font;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.jspecify.annotations.Nullable;

/** Tables as files that table programs open: CSV (RFC 4180), XLSX (ISO/IEC 29500). Cells are texts, never formulas. */
public final class TableFiles {
    private static final int COLUMNS = 50;

    /** A workbook as it lies unpacked: more is no table of lines, and would not fit beside other work. */
    private static final long UNPACKED = 12L << 20;

    private TableFiles() {}

    public static byte[] csv(List<List<String>> rows) {
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            for (List<String> row : rows)
                csv.printRecord(row.stream().map(TableFiles::plain).toList());
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    /** A cell that a table program would take for a formula begins with an apostrophe. */
    public static String plain(String cell) {
        return !cell.isEmpty() && "=+-@\t\r".indexOf(cell.charAt(0)) >= 0 ? "'" + cell : cell;
    }

    /** A workbook of one sheet, the head of which stays in sight. */
    public static byte[] xlsx(String name, List<List<String>> rows) {
        try (XSSFWorkbook book = new XSSFWorkbook();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            CellStyle bold = book.createCellStyle();
            Font font = book.createFont();
            font.setBold(true);
            bold.setFont(font);
            Sheet sheet = book.createSheet(name);
            sheet.createFreezePane(0, 1);
            for (int r = 0; r < rows.size(); r++) {
                Row row = sheet.createRow(r);
                for (int i = 0; i < rows.get(r).size(); i++) {
                    row.createCell(i).setCellValue(rows.get(r).get(i));
                    if (r == 0) row.getCell(i).setCellStyle(bold);
                }
            }
            for (int i = 0; !rows.isEmpty() && i < rows.get(0).size(); i++) {
                boolean wide =
                        rows.get(0).get(i).equals("title") || rows.get(0).get(i).equals("reason");
                sheet.setColumnWidth(i, (wide ? 44 : 18) * 256);
            }
            book.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }

    /**
     * The rows of a table, from either form; of a workbook its first sheet, of a formula what it gave last. Macros are not looked at.
     *
     * @param most rows that are read, one more for a table that has more
     */
    public static Outcome<List<List<String>>> read(byte[] file, int most) {
        boolean zip = file.length > 3 && file[0] == 'P' && file[1] == 'K';
        try {
            return Outcome.granted(zip ? ofWorkbook(file, most) : ofText(file, most));
        } catch (IOException | RuntimeException e) {
            // Whatever a hostile or broken file makes the reader throw, it is no table.
            return Outcome.refused(
                    "table.unread",
                    "This is no table that can be read.",
                    "Save it as XLSX, or as CSV with commas; nothing was changed.");
        }
    }

    /** Counted before it is read as a workbook: a small file may unpack to a huge one. */
    private static void refuseHuge(byte[] file) throws IOException {
        byte[] part = new byte[8192];
        long all = 0;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(file))) {
            while (zip.getNextEntry() != null) {
                for (int read = zip.read(part); read > 0; read = zip.read(part)) {
                    all += read;
                    if (all > UNPACKED) throw new IOException("unpacks to more than " + UNPACKED + " bytes");
                }
            }
        }
    }

    /** One at a time: a workbook takes many times its size while it is read. */
    private static synchronized List<List<String>> ofWorkbook(byte[] file, int most) throws IOException {
        refuseHuge(file);
        try (XSSFWorkbook book = new XSSFWorkbook(new ByteArrayInputStream(file))) {
            DataFormatter format = new DataFormatter();
            format.setUseCachedValuesForFormulaCells(true);
            List<List<String>> rows = new ArrayList<>();
            Sheet sheet = book.getSheetAt(0);
            for (Row row : sheet) {
                if (rows.size() > most) break;
                while (rows.size() < Math.min(row.getRowNum(), most)) rows.add(List.of());
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < Math.min(COLUMNS, row.getLastCellNum()); i++) {
                    cells.add(cell(format, row.getCell(i)));
                }
                rows.add(cells);
            }
            return rows;
        }
    }

    /** What a cell shows; a day as ISO 8601 writes it, for how a table program shows it depends on the place. */
    private static String cell(DataFormatter format, @Nullable Cell cell) {
        if (cell == null) return "";
        CellType type = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
        boolean day = type == CellType.NUMERIC && DateUtil.isCellDateFormatted(cell) && cell.getNumericCellValue() >= 1;
        return day ? cell.getLocalDateTimeCellValue().toLocalDate().toString() : format.formatCellValue(cell);
    }

    private static List<List<String>> ofText(byte[] file, int most) throws IOException {
        String text = new String(file, StandardCharsets.UTF_8);
        if (text.startsWith("\uFEFF")) text = text.substring(1);
        int end = text.indexOf('\n');
        String head = end < 0 ? text : text.substring(0, end);
        // Table programs of many places write semicolons where numbers have commas.
        char between = head.indexOf(';') >= 0 && head.indexOf(',') < 0 ? ';' : head.indexOf('\t') >= 0 ? '\t' : ',';
        CSVFormat format = CSVFormat.RFC4180.builder().setDelimiter(between).get();
        List<List<String>> rows = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            for (CSVRecord row : parser) {
                if (rows.size() > most) break;
                List<String> cells = new ArrayList<>();
                for (String cell : row) {
                    if (cells.size() == COLUMNS) break;
                    // As it went out: an apostrophe keeps a text from being a formula.
                    cells.add(
                            cell.startsWith("'") && !plain(cell.substring(1)).equals(cell.substring(1))
                                    ? cell.substring(1)
                                    : cell);
                }
                rows.add(cells);
            }
        }
        return rows;
    }
}
