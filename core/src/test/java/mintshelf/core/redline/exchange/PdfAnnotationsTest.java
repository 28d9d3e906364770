package mintshelf.core.redline.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.zip.DeflaterOutputStream;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.Style;
import mintshelf.core.drawing.pdf.PdfWhere;
import mintshelf.core.drawing.pdf.PdfWriter;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Tool;
import mintshelf.core.redline.exchange.WebAnnotations.Brought;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotation;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationSquare;
import org.apache.pdfbox.pdmodel.interactive.annotation.PDAnnotationText;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.junit.jupiter.api.Test;

/** Remarks as annotations of a PDF, and what other readers wrote into it. */
class PdfAnnotationsTest {
    private static final Box A3 = new Box(0, 0, 420, 297);
    private static final Look LOOK = new Look(Colour.TEAL, 3.5);

    private static List<byte[]> fonts() throws IOException {
        return List.of(Files.readAllBytes(Path.of("../app/src/main/resources/static/fonts/dejavu-sans.ttf")));
    }

    private static byte[] page() throws IOException {
        Style line = new Style("OUTLINE", Style.INK, 1.0, List.of());
        Scene scene = new Scene(
                List.of(new Primitive.Polyline(line, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true)),
                Map.of("OUTLINE", true),
                Map.of());
        return PdfWriter.write(List.of(scene), fonts(), "TG40-3030", "").bytes();
    }

    private static byte[] given() throws IOException {
        return PdfAnnotations.write(page(), WebAnnotationsTest.everyTool(), PdfWhere.sheet(A3), 1, fonts());
    }

    private static Brought read(byte[] pdf) {
        return PdfAnnotations.read(pdf, PdfWhere.sheet(A3), A3, 1, LOOK)
                .orElseThrow(r -> new IllegalStateException(r.says()));
    }

    private static byte[] saved(PDDocument document) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        document.save(out);
        return out.toByteArray();
    }

    @Test
    void everyMarkIsAnAnnotationOfItsKindWithItsWordsAndItsPicture() throws IOException {
        List<Placed> all = WebAnnotationsTest.everyTool();
        try (PDDocument document = Loader.loadPDF(PdfAnnotations.write(page(), all, PdfWhere.sheet(A3), 1, fonts()))) {
            List<PDAnnotation> there = document.getPage(0).getAnnotations();
            assertThat(there)
                    .extracting(PDAnnotation::getSubtype)
                    .containsExactly("Square", "Text", "Line", "Text", "Line", "Ink", "Highlight", "FreeText");
            PDAnnotation cloud = there.get(0);
            assertThat(cloud.getAnnotationName()).isEqualTo(all.get(0).remark().uid());
            assertThat(cloud.getCOSObject().getString(COSName.T)).isEqualTo("Hedda Lysgaard");
            assertThat(cloud.getContents()).isEqualTo("Round this\nmore\nwords");
            assertThat(cloud.getCOSObject().getString("Subj")).contains("C4-2", "question", "open");
            PDAnnotation reply = there.get(1);
            assertThat(reply.getCOSObject().getDictionaryObject(COSName.getPDFName("IRT")))
                    .isEqualTo(cloud.getCOSObject());
            assertThat(there).filteredOn(a -> !a.equals(reply)).allMatch(a -> a.getNormalAppearanceStream() != null);
            // Drawn, it is seen where it was drawn: the ink from 10,10 over 20,20 on the sheet.
            var image = new PDFRenderer(document).renderImageWithDPI(0, 50.8f); // 2 dots a millimetre
            int dark = 0;
            for (int dx = -4; dx <= 4; dx++) {
                int rgb = image.getRGB(40 + dx, image.getHeight() - 40 + dx) & 0xffffff;
                if (rgb != 0xffffff) dark++;
            }
            assertThat(dark).isPositive();
        }
    }

    @Test
    void whatComesBackKeepsItsNames() throws IOException {
        List<Placed> all = WebAnnotationsTest.everyTool();
        Brought brought = read(PdfAnnotations.write(page(), all, PdfWhere.sheet(A3), 1, fonts()));
        assertThat(brought.unread()).isEmpty();
        assertThat(brought.remarks())
                .extracting(WebAnnotations.New::uid)
                .containsExactlyElementsOf(
                        all.stream().map(p -> p.remark().uid()).toList());
        assertThat(brought.answers()).singleElement().satisfies(a -> {
            assertThat(a.target()).isEqualTo(all.get(0).remark().uid());
            assertThat(a.uid()).isEqualTo(all.get(0).remark().replies().get(0).uid());
            assertThat(a.says()).isEqualTo("Gasket <B> & \"C\"");
        });
        assertThat(brought.remarks().get(3).mark().tool())
                .as("a size goes as a line")
                .isEqualTo(Tool.ARROW_NOTE);
    }

    @Test
    void whatOthersAddIsTakenAndAnswersOfAnswersReachTheirThread() throws IOException {
        byte[] back;
        List<Placed> all = WebAnnotationsTest.everyTool();
        try (PDDocument document = Loader.loadPDF(PdfAnnotations.write(page(), all, PdfWhere.sheet(A3), 1, fonts()))) {
            PDPage page = document.getPage(0);
            List<PDAnnotation> list = page.getAnnotations();
            PDAnnotationText first = answer("Yes, by 0.5", "Jens");
            first.setInReplyTo(list.get(0));
            PDAnnotationText second = answer("Make it 0.8", "Ada");
            second.setInReplyTo(first);
            PDAnnotationSquare square = new PDAnnotationSquare();
            square.setRectangle(new PDRectangle(100, 200, 50, 30));
            square.setContents("What is this?\nIt has no size.");
            square.setTitlePopup("Ada");
            list.add(first);
            list.add(second);
            list.add(square);
            page.setAnnotations(list);
            back = saved(document);
        }
        Brought brought = read(back);
        String root = all.get(0).remark().uid();
        assertThat(brought.answers()).hasSize(3).allMatch(a -> a.target().equals(root));
        assertThat(brought.answers()).extracting(WebAnnotations.Answer::name).contains("Jens", "Ada");
        WebAnnotations.New own = brought.remarks().get(brought.remarks().size() - 1);
        assertThat(own.mark().tool()).isEqualTo(Tool.CLOUD);
        assertThat(own.line()).isEqualTo("What is this?");
        assertThat(own.description()).isEqualTo("It has no size.");
        double mm = 25.4 / 72;
        assertThat(own.mark().box().minX()).isCloseTo(100 * mm, org.assertj.core.data.Offset.offset(0.01));
        assertThat(own.mark().box().maxY()).isCloseTo(230 * mm, org.assertj.core.data.Offset.offset(0.01));
        // The same file read twice brings the same names.
        assertThat(read(back).remarks())
                .extracting(WebAnnotations.New::uid)
                .isEqualTo(
                        brought.remarks().stream().map(WebAnnotations.New::uid).toList());
    }

    private static PDAnnotationText answer(String says, String name) {
        PDAnnotationText text = new PDAnnotationText();
        text.setContents(says);
        text.setTitlePopup(name);
        text.setRectangle(new PDRectangle(10, 10, 18, 18));
        return text;
    }

    @Test
    void whatIsNoneIsRefusedInWords() throws IOException {
        assertThat(code("%PDF-1.7\nno more".getBytes(StandardCharsets.UTF_8))).isEqualTo("annotations.form");
        assertThat(code(page())).isEqualTo("annotations.none");
        assertThat(code(new byte[PdfAnnotations.LARGEST + 1])).isEqualTo("annotations.large");
        try (PDDocument document = Loader.loadPDF(page())) {
            document.getPage(0)
                    .setAnnotations(IntStream.range(0, WebAnnotations.MOST + 1)
                            .mapToObj(i -> (PDAnnotation) answer("n" + i, "x"))
                            .toList());
            assertThat(code(saved(document))).isEqualTo("annotations.many");
        }
    }

    private static String code(byte[] pdf) {
        return PdfAnnotations.read(pdf, PdfWhere.sheet(A3), A3, 1, LOOK)
                .refusal()
                .map(Refusal::code)
                .orElse("");
    }

    @Test
    void aFewBytesThatStandForVeryManyAreRefusedBeforeTheyAreUnpacked() throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (DeflaterOutputStream out = new DeflaterOutputStream(packed)) {
            byte[] nothing = new byte[1 << 20];
            for (int i = 0; i < 120; i++) out.write(nothing);
        }
        ByteArrayOutputStream bomb = new ByteArrayOutputStream();
        bomb.write("%PDF-1.7\n1 0 obj\n<</Type/ObjStm/N 1/First 4/Filter/FlateDecode/Length 1>>\nstream\n"
                .getBytes(StandardCharsets.US_ASCII));
        bomb.write(packed.toByteArray());
        bomb.write("\nendstream\nendobj\n".getBytes(StandardCharsets.US_ASCII));
        assertThat(bomb.size()).isLessThan(1 << 20);
        assertThat(code(bomb.toByteArray())).isEqualTo("annotations.large");
        for (String odd :
                List.of("/Filter[/FlateDecode/FlateDecode]", "/Filter /Fl#61teDecode", "/Filter [ /LZWDecode ]")) {
            assertThat(code(("%PDF-1.7\n1 0 obj\n<<" + odd + ">>\nendobj").getBytes(StandardCharsets.US_ASCII)))
                    .as(odd)
                    .isEqualTo("annotations.large");
        }
    }

    @Test
    void aRingOfAnswersAndOffTheSheetEndInWords() throws IOException {
        try (PDDocument document = Loader.loadPDF(page())) {
            PDAnnotationText a = answer("a", "x");
            PDAnnotationText b = answer("b", "x");
            a.setInReplyTo(b);
            b.setInReplyTo(a);
            PDAnnotationSquare off = new PDAnnotationSquare();
            off.setRectangle(new PDRectangle(90_000, 90_000, 50, 50));
            off.setContents("far away");
            document.getPage(0).setAnnotations(List.of(a, b, off));
            Brought brought = read(saved(document));
            assertThat(brought.remarks()).isEmpty();
            assertThat(brought.unread()).anyMatch(s -> s.contains("far away"));
        }
    }

    @Test
    void mutatedFilesEndInWordsOrInRemarks() throws IOException {
        byte[] given = given();
        Random random = new Random(11);
        for (int i = 0; i < 60; i++) {
            byte[] other = given.clone();
            for (int n = 0; n < 8; n++) other[random.nextInt(other.length)] = (byte) random.nextInt(256);
            Outcome<Brought> read = PdfAnnotations.read(other, PdfWhere.sheet(A3), A3, 1, LOOK);
            assertThat(read).isNotNull();
        }
    }
}
