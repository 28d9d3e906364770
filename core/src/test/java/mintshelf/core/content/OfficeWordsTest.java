package mintshelf.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

class OfficeWordsTest {
    private static final Duration LONG = Duration.ofSeconds(20);

    private static byte[] zip(String... namesAndParts) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < namesAndParts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndParts[i]));
                zip.write(namesAndParts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
        return out.toByteArray();
    }

    private static List<String> words(byte[] file) {
        return OfficeWords.of(new ByteArrayInputStream(file), 40_000, LONG);
    }

    @Test
    void paragraphsCellsAndSlidesAreLines() throws IOException {
        assertThat(words(zip(
                        "[Content_Types].xml",
                        "<Types/>",
                        "word/document.xml",
                        "<w:document xmlns:w='x'><w:p><w:r><w:t>Mooring </w:t></w:r><w:r><w:t>test</w:t></w:r></w:p><w:p><w:t>17</w:t></w:p><w:p><w:t>passed</w:t></w:p></w:document>",
                        "word/styles.xml",
                        "<a><p>Heading style</p></a>")))
                .containsExactly("Mooring test", "passed");
        assertThat(words(zip("xl/sharedStrings.xml", "<sst><si><t>Tide table</t></si><si><t>Gauge</t></si></sst>")))
                .containsExactly("Tide table", "Gauge");
        assertThat(words(zip(
                        "ppt/slides/slide12.xml",
                        "<p:sld xmlns:p='p' xmlns:a='a'><a:p><a:t>Berth 3</a:t></a:p></p:sld>")))
                .containsExactly("Berth 3");
        assertThat(words(zip(
                        "content.xml", "<o xmlns:text='t'><text:h>Open one</text:h><text:p>says this</text:p></o>")))
                .containsExactly("Open one", "says this");
    }

    @Test
    void aTextSaysWhatItSaysTwiceTwice() throws IOException {
        byte[] file = zip(
                "word/document.xml",
                "<w:document xmlns:w='x'><w:p><w:t>Checked</w:t></w:p><w:p><w:t>17</w:t></w:p><w:p><w:t>Checked</w:t></w:p></w:document>",
                "xl/worksheets/sheet1.xml",
                "<worksheet><c><v>0</v></c></worksheet>");
        assertThat(OfficeWords.text(new ByteArrayInputStream(file), 40_000, LONG))
                .containsExactly("Checked", "17", "Checked");
        assertThat(OfficeWords.text(new ByteArrayInputStream(file), 9, LONG)).containsExactly("Checked");
    }

    @Test
    void whatUnpacksToTenGigabytesIsReadNoFurther() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("word/document.xml"));
            zip.write("<d><p>first line</p>".getBytes(StandardCharsets.UTF_8));
            byte[] blanks = " ".repeat(1 << 20).getBytes(StandardCharsets.UTF_8);
            for (int i = 0; i < 200; i++) zip.write(blanks);
            zip.write("<p>last line</p></d>".getBytes(StandardCharsets.UTF_8));
        }
        assertThat(out.size()).isLessThan(1 << 20);
        assertThat(words(out.toByteArray())).containsExactly("first line");
    }

    @Test
    void brokenHostileAndEndlessOnesSayWhatCouldBeRead() throws IOException {
        byte[] whole = zip("word/document.xml", "<d><p>half of it</p><p>" + "x".repeat(9000) + "</p></d>");
        for (int cut = 0; cut < whole.length; cut += 7) {
            assertThat(words(java.util.Arrays.copyOf(whole, cut)).size()).isLessThanOrEqualTo(2);
        }
        assertThat(
                        words(
                                zip(
                                        "word/document.xml",
                                        "<!DOCTYPE d [<!ENTITY a SYSTEM 'file:///etc/passwd'><!ENTITY b '&a;&a;&a;'>]><d><p>&b;root</p></d>")))
                .noneMatch(line -> line.contains("root:"));
        assertThat(words("no archive".getBytes(StandardCharsets.UTF_8))).isEmpty();
        assertThat(OfficeWords.of(new ByteArrayInputStream(whole), 40_000, Duration.ZERO))
                .isEmpty();
        byte[] many =
                zip("word/document.xml", "<d>" + "<p>line of many letters</p>".repeat(10) + "<p>one more line</p></d>");
        assertThat(OfficeWords.of(new ByteArrayInputStream(many), 30, LONG))
                .containsExactly("line of many letters", "one more");
    }
}
