package mintshelf.core.drawing.pdf;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.drawing.pdf.PdfCompare.Pair;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.destination.PDPageXYZDestination;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDDocumentOutline;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDOutlineItem;
import org.junit.jupiter.api.Test;

class PdfCompareTest {
    private static List<Pair> pages(byte[] old, byte[] now) {
        return PdfCompare.pages(Paper.words(old), Paper.words(now), Duration.ofSeconds(20));
    }

    @Test
    void wordsStandWhereTheyAreRead() {
        List<PdfText.Word> words = Paper.words(Paper.pdf("Anchor nuts 120 Nm")).get(0);
        assertThat(words).extracting(PdfText.Word::text).containsExactly("Anchor", "nuts", "120", "Nm");
        assertThat(words.get(0).box().minX()).isBetween(25.0, 26.0);
        assertThat(words.get(0).box().minY()).as("700 points from the foot").isBetween(245.0, 249.0);
        assertThat(words.get(1).box().minX()).isGreaterThan(words.get(0).box().maxX());
    }

    @Test
    void aChangedWordIsNamedWithItsPlace() {
        List<Pair> pages = pages(
                Paper.pdf("Lid screws M6 torque 6 Nm", "Clamp bolts M8"),
                Paper.pdf("Lid screws M6 torque 8 Nm dry", "Clamp bolts M8"));
        assertThat(pages).extracting(Pair::says).containsExactly("page 1", "page 2");
        assertThat(pages.get(0).differences())
                .extracting(Comparison.Difference::says)
                .containsExactly("“6” → “8”", "“dry”");
        assertThat(pages.get(0).differences())
                .extracting(Comparison.Difference::kind)
                .containsExactly(Comparison.Kind.CHANGED, Comparison.Kind.ONLY_IN_NEW);
        assertThat(pages.get(0).differences()).noneMatch(d -> d.box().isEmpty());
        assertThat(pages.get(1).differences()).isEmpty();
        assertThat(pages.get(0).comparison(6, 7).same()).isEqualTo(5);
    }

    @Test
    void pagesThatCameOrWentDoNotMakeAllOthersDiffer() {
        byte[] old = Paper.pdf("one", "two", "three", "four");
        assertThat(pages(old, Paper.pdf("one", "fresh", "two", "three", "four")))
                .extracting(Pair::says)
                .containsExactly("page 1", "page 2, only in new", "page 3, was 2", "page 4, was 3", "page 5, was 4");
        assertThat(pages(old, Paper.pdf("one", "four")))
                .extracting(Pair::says)
                .containsExactly("page 1", "page 2, only in old", "page 3, only in old", "page 2, was 4");
        assertThat(pages(old, old)).allMatch(p -> p.differences().isEmpty() && p.isWhole());
        assertThat(PdfCompare.pages(List.of(), List.of(), Duration.ZERO)).isEmpty();
    }

    @Test
    void aPhraseIsFoundWithoutCaseAndAcrossWords() {
        List<PdfText.Word> page = Paper.words(Paper.pdf("The seat of the pulley, pulleys and Pulley seats"))
                .get(0);
        assertThat(PdfCompare.find(page, "pulley", 10)).hasSize(3);
        assertThat(PdfCompare.find(page, "PULLEY SEAT", 10)).hasSize(1);
        assertThat(PdfCompare.find(page, "pulley", 2)).hasSize(2);
        assertThat(PdfCompare.find(page, "  ", 10)).isEmpty();
        assertThat(PdfCompare.find(page, "(.*", 10)).isEmpty();
        assertThat(PdfCompare.find(List.of(), "pulley", 10)).isEmpty();
    }

    @Test
    void chaptersLeadToTheirPages() {
        byte[] pdf = Paper.pdf("purpose", "conditions");
        assertThat(PdfOutline.of(pdf))
                .extracting(c -> c.depth() + " " + c.title() + " " + c.page())
                .containsExactly("0 About purpose 1", "0 About conditions 2", "1 Annex without a page 0");
        for (int cut = 0; cut < pdf.length; cut += 211) PdfOutline.of(Arrays.copyOf(pdf, cut));
        assertThat(PdfOutline.of(new byte[0])).isEmpty();
    }

    @Test
    void aPlaceLiesInTheLastChapterThatBeginsBeforeIt() {
        List<PdfOutline.Chapter> chapters = List.of(
                new PdfOutline.Chapter(0, "1 Scope", 2, 40),
                new PdfOutline.Chapter(0, "2 Tests", 3, 0),
                new PdfOutline.Chapter(1, "2.1 Pressure", 3, 120),
                new PdfOutline.Chapter(0, "Annex without a page", 0, 0),
                new PdfOutline.Chapter(0, "3 Marking", 6, 30));
        assertThat(PdfOutline.around(chapters, 1, 200)).isEmpty();
        assertThat(PdfOutline.around(chapters, 2, 39)).isEmpty();
        assertThat(PdfOutline.around(chapters, 2, 40).orElseThrow().title()).isEqualTo("1 Scope");
        assertThat(PdfOutline.around(chapters, 3, 119).orElseThrow().title()).isEqualTo("2 Tests");
        assertThat(PdfOutline.around(chapters, 3, 121).orElseThrow().title()).isEqualTo("2.1 Pressure");
        assertThat(PdfOutline.around(chapters, 5, 0).orElseThrow().title()).isEqualTo("2.1 Pressure");
        assertThat(PdfOutline.around(chapters, 99, 0).orElseThrow().title()).isEqualTo("3 Marking");
        assertThat(PdfOutline.around(List.of(), 1, 0)).isEmpty();
    }

    @Test
    void aChapterSaysHowFarDownItsPageItBegins() throws IOException {
        try (PDDocument document = new PDDocument()) {
            PDPage page = new PDPage(PDRectangle.A4);
            document.addPage(page);
            PDDocumentOutline outline = new PDDocumentOutline();
            PDOutlineItem half = new PDOutlineItem();
            half.setTitle("Half down");
            PDPageXYZDestination to = new PDPageXYZDestination();
            to.setPage(page);
            to.setTop((int) (PDRectangle.A4.getHeight() / 2));
            half.setDestination(to);
            outline.addLast(half);
            document.getDocumentCatalog().setDocumentOutline(outline);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            assertThat(PdfOutline.of(out.toByteArray()).get(0).down()).isBetween(148.0, 149.5);
        }
    }

    @Test
    void anOutlineThatTurnsInARingEnds() throws IOException {
        try (PDDocument document = new PDDocument()) {
            document.addPage(new PDPage());
            PDDocumentOutline outline = new PDDocumentOutline();
            PDOutlineItem nameless = new PDOutlineItem();
            outline.addLast(nameless);
            nameless.getCOSObject().setItem(COSName.NEXT, nameless.getCOSObject());
            nameless.getCOSObject().setItem(COSName.FIRST, nameless.getCOSObject());
            document.getDocumentCatalog().setDocumentOutline(outline);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            assertThat(PdfOutline.of(out.toByteArray())).isEmpty();
        }
    }

    @Test
    void wordsOfWhatIsBrokenAndOfWhatTakesLongAreNone() {
        byte[] pdf = Paper.pdf("one", "two");
        List<PdfPages.Page> pages = PdfPages.of(pdf)
                .orElseThrow(r -> new IllegalStateException(r.says()))
                .pages();
        assertThat(PdfText.of(Arrays.copyOf(pdf, 40), pages, Duration.ofSeconds(9)))
                .isEmpty();
        assertThat(PdfText.of(pdf, pages, Duration.ZERO)).isEmpty();
    }

    @Test
    void whatSaysTooMuchIsPairedAndNotCompared() {
        Random random = new Random(7);
        List<List<PdfText.Word>> old = List.of(many(random, 5000), many(random, 3500), many(random, 10));
        List<List<PdfText.Word>> now = List.of(many(random, 5000), many(random, 3500), many(random, 10));
        List<Pair> pairs = PdfCompare.pages(old, now, Duration.ofSeconds(60));
        assertThat(pairs).extracting(Pair::compared).containsExactly(false, true, true);
        assertThat(pairs.get(0).says()).isEqualTo("page 1, words not compared");
        assertThat(pairs.get(1).differences()).as("named").isNotEmpty().hasSizeLessThanOrEqualTo(PdfCompare.NAMED);
        assertThat(PdfCompare.pages(old, now, Duration.ZERO)).noneMatch(Pair::compared);
        assertThat(PdfCompare.pages(old, old, Duration.ZERO)).allMatch(Pair::compared);
    }

    private static List<PdfText.Word> many(Random random, int words) {
        return IntStream.range(0, words)
                .mapToObj(i -> new PdfText.Word("w" + random.nextInt(1_000_000), new Box(i, 0, i + 1.0, 1)))
                .toList();
    }

    @Test
    void inkLiesInOneOfThreePictures() throws IOException {
        byte[] small = PdfPages.png(Paper.pdf(40, "one"), 0, 700).orElseThrow(r -> new IllegalStateException(r.says()));
        byte[] large = PdfPages.png(Paper.pdf(80, "one"), 0, 700).orElseThrow(r -> new IllegalStateException(r.says()));
        InkOverlay.Layers layers = InkOverlay.of(Optional.of(small), Optional.of(large));
        assertThat(dots(layers.old())).isZero();
        assertThat(dots(layers.now())).isGreaterThan(1000);
        assertThat(dots(layers.same())).isGreaterThan(1000);
        assertThat(layers.ratio()).isBetween(0.3, 0.9);
        InkOverlay.Layers same = InkOverlay.of(Optional.of(small), Optional.of(small));
        assertThat(same.ratio()).isZero();
        assertThat(dots(InkOverlay.of(Optional.of(small), Optional.empty()).old()))
                .isEqualTo(dots(same.same()));
    }

    private static long dots(byte[] png) throws IOException {
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(png));
        long dots = 0;
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) if (image.getRGB(x, y) >>> 24 != 0) dots++;
        }
        return dots;
    }
}
