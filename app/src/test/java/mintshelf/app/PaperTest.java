package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Redlines;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.use.compare.ComparePapers;
import mintshelf.app.use.document.ReadPaper;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.Sheet;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.pdf.Paper;
import org.junit.jupiter.api.Test;

/** Papers: chapters, words in them, two of them compared page by page, scans. */
class PaperTest {
    private final Server server = Server.shared();
    private final ComparePapers compare = server.bean(ComparePapers.class);
    private final ReadPaper papers = server.bean(ReadPaper.class);
    private final ReadSheet sheets = server.bean(ReadSheet.class);

    private VersionRow filed(String name, byte[] bytes) {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "report", "PP" + shelf + "-10 " + name, bytes, true);
        return version(item, 1);
    }

    private VersionRow version(long item, int number) {
        return server.bean(VersionStore.class).version(item, number).orElseThrow();
    }

    private StoredContent paper(String... pages) {
        return filed("guide.pdf", Paper.pdf(pages)).content();
    }

    @Test
    void twoPapersAreComparedPageByPage() throws IOException {
        StoredContent old = paper("Anchor nuts 120 Nm", "Lid screws 6 Nm", "Hang the float");
        StoredContent now = paper("Anchor nuts 120 Nm", "Lid screws 8 Nm", "Hang the float");
        ComparePapers.Papers both =
                compare.of(old, now, Optional.empty(), "/x?old=1").orElseThrow();
        assertThat(both.pair()).as("the first page that differs").isEqualTo(1);
        assertThat(both.differing()).isEqualTo(1);
        assertThat(both.choices().get(1).differences()).isEqualTo(1);
        assertThat(both.shown().comparison().differences())
                .singleElement()
                .satisfies(d -> assertThat(d.says()).isEqualTo("“6” → “8”"));
        assertThat(both.shown().svg())
                .contains("/x?old=1&amp;pair=1&amp;part=old")
                .contains("data-difference=\"1\"");
        assertThat(ImageIO.read(new ByteArrayInputStream(compare.ink(old, now, 1, "now")))
                        .getHeight())
                .isEqualTo(1800);
        assertThatThrownBy(() -> compare.ink(old, now, 9, "now")).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> compare.ink(old, now, 1, "../secret")).isInstanceOf(NotThere.class);
        assertThat(compare.of(old, now, Optional.of(99), "/x").orElseThrow().pair())
                .isEqualTo(1);
        assertThat(compare.of(old, old, Optional.empty(), "/x").orElseThrow().differing())
                .isZero();
    }

    @Test
    void whatIsNoPaperIsNotComparedSo() {
        StoredContent old = paper("one");
        StoredContent text =
                filed("notes.txt", "notes".getBytes(StandardCharsets.US_ASCII)).content();
        assertThat(compare.of(old, text, Optional.empty(), "/x")).isEmpty();
        StoredContent broken =
                filed("broken.pdf", Arrays.copyOf(Paper.pdf("one"), 60)).content();
        assertThat(broken.kind()).isEqualTo(ContentKind.PDF);
        assertThat(compare.of(old, broken, Optional.empty(), "/x")).isEmpty();
        assertThat(papers.find(broken, "one").hits()).isEmpty();
        assertThat(papers.chapters(broken)).isEmpty();
    }

    @Test
    void wordsAreFoundWithWhatStandsAroundThem() {
        StoredContent paper = paper("Set the mast on its base plate", "Lid screws 6 Nm", "Set the lid");
        ReadPaper.Hits hits = papers.find(paper, "set the");
        assertThat(hits.hits()).extracting(ReadPaper.Hit::page).containsExactly(1, 3);
        assertThat(hits.hits().get(0).says()).isEqualTo("Set the mast on its base plate");
        assertThat(hits.hits().get(0).at()).matches("\\d+ \\d+ \\d+ \\d+");
        assertThat(papers.find(paper, "x".repeat(10_000)).hits()).isEmpty();
        assertThat(papers.find(paper, "").hits()).isEmpty();
        assertThat(papers.chapters(paper)).hasSize(4);
    }

    @Test
    void aSpreadsheetIsATableAndALetterIsText() throws IOException {
        byte[] book = TableFiles.xlsx(
                "Parts", List.of(List.of("Part", "Quantity"), List.of("M6 x 16", ""), List.of("", "<b>8</b>")));
        Sheet table = sheets.sheet(filed("parts.xlsx", book).content());
        assertThat(table.face()).isEqualTo("TABLE");
        assertThat(table.table().get(0)).containsExactly("Part", "Quantity");
        assertThat(table.table().get(2)).endsWith("<b>8</b>");
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            zip.putNextEntry(new ZipEntry("[Content_Types].xml"));
            zip.putNextEntry(new ZipEntry("word/document.xml"));
            zip.write("<d><p>Dear fitter,</p><p>hang the float.</p></d>".getBytes(StandardCharsets.US_ASCII));
        }
        Sheet letter = sheets.sheet(filed("letter.docx", bytes.toByteArray()).content());
        assertThat(letter.face()).isEqualTo("TEXT");
        assertThat(letter.lines()).containsExactly("Dear fitter,", "hang the float.");
        byte[] half = Arrays.copyOf(book, book.length / 3);
        assertThat(sheets.sheet(filed("half.xlsx", half).content()).face()).isIn("CARD", "TEXT");
    }

    @Test
    void aScanIsShownAndMarkedPageByPage() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(600, 400, BufferedImage.TYPE_BYTE_GRAY), "tiff", bytes);
        VersionRow scan = filed("scan.tif", bytes.toByteArray());
        Sheet sheet = sheets.sheet(scan.content());
        assertThat(sheet.face()).isEqualTo("PAGE");
        assertThat(sheet.layouts()).containsExactly("Page 1");
        assertThat(sheets.page(scan.content(), 1, true)).isNotEmpty();
        assertThat(server.bean(Redlines.class).paper(scan, "")).isPresent();
        assertThat(papers.chapters(scan.content())).isEmpty();
        assertThat(compare.of(scan.content(), scan.content(), Optional.empty(), "/x"))
                .hasValueSatisfying(p -> assertThat(p.picture()).isFalse());
    }
}
