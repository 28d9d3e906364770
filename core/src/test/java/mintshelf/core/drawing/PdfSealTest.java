package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import mintshelf.core.drawing.pdf.PdfMark;
import mintshelf.core.drawing.pdf.PdfSeal;
import mintshelf.core.drawing.pdf.PdfWriter;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.interactive.digitalsignature.PDSignature;
import org.apache.xmpbox.XMPMetadata;
import org.apache.xmpbox.xml.DomXmpParser;
import org.junit.jupiter.api.Test;

/** Pages that can be kept, and the house's seal on them. */
class PdfSealTest {
    private static final Instant THEN = Instant.parse("2026-11-27T08:00:00Z");
    private static final PdfSeal SEAL = PdfSeal.made("Mint Shelf on quay.example", THEN);

    private static byte[] font() throws IOException {
        return Files.readAllBytes(Path.of("../app/src/main/resources/static/fonts/dejavu-sans.ttf"));
    }

    private static byte[] page() throws IOException {
        Style line = new Style("OUTLINE", Style.INK, 1.0, List.of());
        Scene scene = new Scene(
                List.of(
                        new Primitive.Polyline(line, new double[] {0, 0, 420, 0, 420, 297, 0, 297}, true),
                        new Primitive.Text(line, 50, 50, 5, 0, 1, 0, 0, false, "Gland plate ⌀ 6.6")),
                Map.of("OUTLINE", true),
                Map.of());
        return PdfWriter.write(List.of(scene), List.of(font()), "TG40-3030 C", "TG40-3030 · C")
                .bytes();
    }

    private static PdfSeal.Proof proof(byte[] pdf) {
        return PdfSeal.proof(pdf).orElseThrow();
    }

    @Test
    void aSealedPageProvesWhoSealedItAndThatNothingWasChanged() throws IOException {
        byte[] page = page();
        byte[] sealed = SEAL.on(page, "Released as TG40-3030 C", THEN);
        assertThat(Arrays.copyOf(sealed, page.length))
                .as("what was there stays")
                .isEqualTo(page);
        PdfSeal.Proof proof = proof(sealed);
        assertThat(proof.unchanged()).isTrue();
        assertThat(proof.name()).isEqualTo("Mint Shelf on quay.example");
        assertThat(proof.at()).isEqualTo(THEN);
        assertThat(proof.isBy(SEAL)).isTrue();
        assertThat(proof.isBy(PdfSeal.made("another", THEN))).isFalse();
        assertThat(PdfSeal.proof(page)).isEmpty();
    }

    @Test
    void theSignatureIsWhatTheStandardAsksFor() throws Exception {
        try (PDDocument document = Loader.loadPDF(SEAL.on(page(), "Released", THEN))) {
            PDSignature signature = document.getSignatureDictionaries().get(0);
            assertThat(signature.getSubFilter()).isEqualTo("ETSI.CAdES.detached");
            assertThat(signature.getReason()).isEqualTo("Released");
            assertThat(signature.getSignDate()).isNotNull();
            assertThat(document.getNumberOfPages()).isEqualTo(1);
        }
        X509Certificate certificate = (X509Certificate) CertificateFactory.getInstance("X.509")
                .generateCertificate(new ByteArrayInputStream(SEAL.certificate()));
        certificate.verify(certificate.getPublicKey());
        assertThat(certificate.getKeyUsage()[0]).isTrue();
        certificate.checkValidity(java.util.Date.from(THEN));
    }

    @Test
    void oneByteElsewhereAndItProvesNothing() throws IOException {
        byte[] sealed = SEAL.on(page(), "Released", THEN);
        Random random = new Random(7);
        int proven = 0;
        for (int i = 0; i < 40; i++) {
            byte[] other = sealed.clone();
            other[random.nextInt(other.length)] ^= (byte) (1 + random.nextInt(255));
            Optional<PdfSeal.Proof> proof = PdfSeal.proof(other);
            if (proof.filter(p -> p.unchanged() && p.isBy(SEAL)).isPresent()) proven++;
        }
        assertThat(proven).isZero();
        byte[] behind = Arrays.copyOf(sealed, sealed.length + 40);
        System.arraycopy(
                "\n% a line behind the seal, here it is.\n".getBytes(StandardCharsets.UTF_8),
                0,
                behind,
                sealed.length,
                38);
        assertThat(PdfSeal.proof(behind).filter(PdfSeal.Proof::unchanged)).isEmpty();
        int at = new String(sealed, StandardCharsets.ISO_8859_1).indexOf("stream") + 30;
        byte[] inside = sealed.clone();
        inside[at] ^= 1;
        assertThat(PdfSeal.proof(inside).filter(PdfSeal.Proof::unchanged)).isEmpty();
    }

    @Test
    void whatIsNoPdfProvesNothing() {
        assertThat(PdfSeal.proof(new byte[0])).isEmpty();
        assertThat(PdfSeal.proof("%PDF-1.7\nno more".getBytes(StandardCharsets.UTF_8)))
                .isEmpty();
    }

    @Test
    void aSealIsKeptAndReadAgain() throws IOException {
        PdfSeal again = PdfSeal.read(SEAL.kept(), new char[0]);
        assertThat(again.certificate()).isEqualTo(SEAL.certificate());
        assertThat(proof(again.on(page(), "x", THEN)).isBy(SEAL)).isTrue();
        assertThatThrownBy(() -> PdfSeal.read(new byte[] {1, 2, 3}, new char[0]))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aMarkAcrossASealedPageTakesTheSealOffAndAnotherCanBeSet() throws IOException {
        byte[] marked = PdfMark.across(SEAL.on(page(), "Released", THEN), font(), "Replaced by D");
        assertThat(PdfSeal.proof(marked)).isEmpty();
        PdfSeal.Proof proof = proof(SEAL.on(marked, "Replaced by D", THEN));
        assertThat(proof.unchanged()).isTrue();
    }

    /** What ISO 19005-2 asks for level B, as far as it concerns what is written here. */
    @Test
    void aPageSaysThatItIsKeptAndEmbedsWhatItNeeds() throws Exception {
        byte[] sealed = SEAL.on(page(), "Released", THEN);
        try (PDDocument document = Loader.loadPDF(sealed)) {
            XMPMetadata said = new DomXmpParser()
                    .parse(document.getDocumentCatalog().getMetadata().exportXMPMetadata());
            assertThat(said.getPDFAIdentificationSchema().getPart()).isEqualTo(2);
            assertThat(said.getPDFAIdentificationSchema().getConformance()).isEqualTo("B");
            assertThat(said.getDublinCoreSchema().getTitle())
                    .isEqualTo(document.getDocumentInformation().getTitle())
                    .isEqualTo("TG40-3030 C");
            assertThat(said.getAdobePDFSchema().getProducer())
                    .isEqualTo(document.getDocumentInformation().getProducer());
            assertThat(document.getDocumentCatalog().getOutputIntents()).hasSize(1);
            assertThat(document.getDocument().getDocumentID()).isNotNull();
            assertThat(document.isEncrypted()).isFalse();
            for (PDPage page : document.getPages()) {
                for (COSName name : page.getResources().getFontNames()) {
                    PDFont font = page.getResources().getFont(name);
                    assertThat(font.isEmbedded()).as(font.getName()).isTrue();
                }
                assertThat(page.getAnnotations()).allMatch(a -> a.isPrinted() && !a.isHidden());
            }
        }
        assertThat(new String(sealed, 0, 7, StandardCharsets.ISO_8859_1)).isEqualTo("%PDF-1.");
        assertThat((sealed[9] & 0x80) | (sealed[10] & 0x80))
                .as("bytes that say: no text")
                .isNotZero();
    }
}
