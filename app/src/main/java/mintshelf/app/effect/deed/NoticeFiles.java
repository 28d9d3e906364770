package mintshelf.app.effect.deed;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import mintshelf.app.effect.TableFiles;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.NoticeForm;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Font;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFParagraph;
import org.apache.poi.xwpf.usermodel.XWPFRun;
import org.apache.poi.xwpf.usermodel.XWPFTable;
import org.apache.poi.xwpf.usermodel.XWPFTableRow;

/**
 * A change notice as tables and documents beside its pages, all of the same data: CSV (RFC 4180), XML, XLSX and DOCX (ISO/IEC 29500).
 */
final class NoticeFiles {
    private static final List<String> LINES =
            List.of("number", "title", "variant", "what", "from", "to", "version", "reason", "parts", "sha256");
    private static final List<String> OLD = List.of("number", "place", "quantity", "what", "cost", "note");

    private NoticeFiles() {}

    /** All of them by format, as outputs are kept. */
    static Map<String, byte[]> all(ChangeNotice notice, NoticeForm form) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("CSV", csv(notice));
        files.put("XLSX", xlsx(notice));
        files.put("DOCX", docx(notice, form));
        files.put("XML", xml(notice));
        return files;
    }

    private static List<String> cells(ChangeNotice.Row row) {
        return List.of(
                row.number(),
                row.title(),
                row.variant(),
                row.what(),
                row.from(),
                row.to(),
                Integer.toString(row.version()),
                row.reason(),
                row.parts(),
                row.hash());
    }

    private static List<String> cells(ChangeNotice.Old old) {
        return List.of(old.number(), old.place(), old.quantity(), old.what(), old.cost(), old.note());
    }

    /** What is said of the whole of it, by what it is called. */
    private static Map<String, String> head(ChangeNotice notice) {
        Map<String, String> head = new LinkedHashMap<>();
        head.put("notice", notice.number());
        head.put("order", notice.order());
        head.put("title", notice.title());
        head.put("date", notice.date());
        head.put("effective", notice.effective());
        head.put("reason", notice.reason());
        head.put("requests", String.join("; ", notice.requests()));
        head.put("cost", notice.cost());
        head.put("unknown", Integer.toString(notice.unknown()));
        return head;
    }

    static byte[] csv(ChangeNotice notice) {
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.print("notice");
            csv.print("order");
            csv.printRecord(LINES);
            for (ChangeNotice.Row row : notice.rows()) {
                csv.print(notice.number());
                csv.print(notice.order());
                csv.printRecord(cells(row).stream().map(TableFiles::plain).toList());
            }
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    static byte[] xlsx(ChangeNotice notice) {
        try (XSSFWorkbook book = new XSSFWorkbook();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            CellStyle bold = book.createCellStyle();
            Font font = book.createFont();
            font.setBold(true);
            bold.setFont(font);
            Sheet head = book.createSheet("Notice");
            int at = 0;
            for (Map.Entry<String, String> one : head(notice).entrySet()) {
                Row row = head.createRow(at++);
                cell(row, 0, one.getKey(), bold);
                row.createCell(1).setCellValue(one.getValue());
            }
            for (String decided : notice.decided())
                head.createRow(at++).createCell(1).setCellValue(decided);
            head.setColumnWidth(1, 80 * 256);
            table(
                    book,
                    "Lines",
                    LINES,
                    notice.rows().stream().map(NoticeFiles::cells).toList(),
                    bold);
            table(
                    book,
                    "Old ones",
                    OLD,
                    notice.old().stream().map(NoticeFiles::cells).toList(),
                    bold);
            book.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }

    /** Cells are texts, never formulas; a version and a quantity are numbers. */
    private static void table(
            XSSFWorkbook book, String name, List<String> columns, List<List<String>> rows, CellStyle bold) {
        Sheet sheet = book.createSheet(name);
        Row first = sheet.createRow(0);
        for (int i = 0; i < columns.size(); i++) cell(first, i, columns.get(i), bold);
        sheet.createFreezePane(0, 1);
        for (int r = 0; r < rows.size(); r++) {
            Row row = sheet.createRow(r + 1);
            for (int i = 0; i < columns.size(); i++) {
                String value = rows.get(r).get(i);
                boolean number =
                        (columns.get(i).equals("version") || columns.get(i).equals("quantity"))
                                && value.matches("\\d{1,12}(\\.\\d{1,3})?");
                if (number) row.createCell(i).setCellValue(Double.parseDouble(value));
                else row.createCell(i).setCellValue(value);
            }
        }
        for (int i = 0; i < columns.size(); i++) sheet.setColumnWidth(i, width(columns.get(i)) * 256);
    }

    private static int width(String column) {
        return switch (column) {
            case "title", "what" -> 32;
            case "reason", "note", "parts" -> 48;
            case "sha256" -> 68;
            default -> 16;
        };
    }

    private static void cell(Row row, int at, String value, CellStyle style) {
        Cell cell = row.createCell(at);
        cell.setCellValue(value);
        cell.setCellStyle(style);
    }

    static byte[] docx(ChangeNotice notice, NoticeForm form) {
        try (XWPFDocument document = new XWPFDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            for (NoticeForm.Block block : form.blocks()) block(document, notice, block);
            document.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }

    private static void block(XWPFDocument document, ChangeNotice notice, NoticeForm.Block block) {
        switch (block.show()) {
            case HEAD -> {
                paragraph(document, "Change notice " + notice.number(), 18, true);
                paragraph(document, notice.title(), 13, true);
                paragraph(
                        document,
                        "By order " + notice.order() + ", " + notice.date()
                                + (notice.effective().isEmpty() ? "" : ", effective " + notice.effective()),
                        10,
                        false);
            }
            case REASON -> paragraphs(document, notice.reason());
            case REQUESTS -> notice.requests().forEach(r -> paragraph(document, "Answers " + r, 10, false));
            case LINES ->
                table(
                        document,
                        List.of("Number", "Title, and why", "What", "Revision", "Version"),
                        notice.rows().stream()
                                .map(r -> List.of(
                                        r.number(),
                                        r.title() + ": " + r.reason(),
                                        Stream.of(r.what(), r.parts(), r.variant())
                                                .filter(s -> !s.isEmpty())
                                                .collect(Collectors.joining("; ")),
                                        r.from() + " → " + r.to(),
                                        Integer.toString(r.version())))
                                .toList());
            // The pictures stand in the pages; here it is said what they show.
            case PICTURES ->
                notice.pictures().forEach(p -> paragraph(document, p.number() + " " + p.says(), 10, false));
            case OLD -> old(document, notice);
            case DECIDED -> notice.decided().forEach(d -> paragraph(document, d, 10, false));
            case TEXT -> paragraphs(document, NoticeForm.filled(block.text(), notice.fields()));
        }
    }

    private static void old(XWPFDocument document, ChangeNotice notice) {
        if (notice.old().isEmpty()) return;
        paragraph(document, "What becomes of the old ones", 12, true);
        table(
                document,
                List.of("Number", "Where", "How many", "What becomes of them", "Cost", "Note"),
                notice.old().stream().map(NoticeFiles::cells).toList());
        if (!notice.cost().isEmpty()) paragraph(document, "Known cost " + notice.cost() + ".", 10, false);
    }

    private static void paragraphs(XWPFDocument document, String text) {
        for (String line : text.split("\n", -1)) paragraph(document, line, 10, false);
    }

    private static void paragraph(XWPFDocument document, String text, int size, boolean bold) {
        XWPFParagraph paragraph = document.createParagraph();
        XWPFRun run = paragraph.createRun();
        run.setText(text);
        run.setFontSize(size);
        run.setBold(bold);
    }

    private static void table(XWPFDocument document, List<String> columns, List<List<String>> rows) {
        XWPFTable table = document.createTable(rows.size() + 1, columns.size());
        table.setWidth("100%");
        fill(table.getRow(0), columns, true);
        table.getRow(0).setRepeatHeader(true);
        for (int i = 0; i < rows.size(); i++) fill(table.getRow(i + 1), rows.get(i), false);
        document.createParagraph();
    }

    private static void fill(XWPFTableRow row, List<String> cells, boolean bold) {
        for (int i = 0; i < cells.size(); i++) {
            XWPFRun run = row.getCell(i).getParagraphs().get(0).createRun();
            run.setText(cells.get(i));
            run.setFontSize(9);
            run.setBold(bold);
        }
    }

    static byte[] xml(ChangeNotice notice) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            XMLStreamWriter xml = XMLOutputFactory.newFactory().createXMLStreamWriter(out, "UTF-8");
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("notice");
            for (Map.Entry<String, String> one : head(notice).entrySet()) {
                if (!one.getKey().equals("requests"))
                    element(xml, one.getKey().equals("notice") ? "number" : one.getKey(), one.getValue());
            }
            for (String request : notice.requests()) element(xml, "request", request);
            for (ChangeNotice.Row row : notice.rows()) row(xml, "line", LINES, cells(row));
            for (ChangeNotice.Old old : notice.old()) row(xml, "old", OLD, cells(old));
            for (String decided : notice.decided()) element(xml, "decided", decided);
            xml.writeEndElement();
            xml.writeEndDocument();
            xml.close();
            return out.toByteArray();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("Writing to memory failed", e);
        }
    }

    private static void row(XMLStreamWriter xml, String name, List<String> columns, List<String> cells)
            throws XMLStreamException {
        xml.writeStartElement(name);
        for (int i = 0; i < columns.size(); i++) element(xml, columns.get(i), cells.get(i));
        xml.writeEndElement();
    }

    private static void element(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        if (text.isEmpty()) return;
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
