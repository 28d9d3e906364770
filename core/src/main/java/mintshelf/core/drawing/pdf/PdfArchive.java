package mintshelf.core.drawing.pdf;

import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.xml.transform.TransformerException;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDMetadata;
import org.apache.pdfbox.pdmodel.graphics.color.PDOutputIntent;
import org.apache.xmpbox.XMPMetadata;
import org.apache.xmpbox.schema.AdobePDFSchema;
import org.apache.xmpbox.schema.PDFAIdentificationSchema;
import org.apache.xmpbox.type.BadFieldValueException;
import org.apache.xmpbox.xml.XmpSerializer;

/**
 * What a PDF says of itself so that it can be kept (ISO 19005-2, level B): that it is one, in its metadata, and in which colours. That its
 * fonts are embedded, and nothing in it moves, sounds or is encrypted, is for whoever writes it.
 */
final class PdfArchive {
    private static final int PART = 2;

    private PdfArchive() {}

    static void declare(PDDocument document, String title) throws IOException {
        XMPMetadata said = XMPMetadata.createXMPMetadata();
        said.createAndAddDublinCoreSchema().setTitle(title);
        AdobePDFSchema about = said.createAndAddAdobePDFSchema();
        about.setProducer("Mint Shelf");
        PDFAIdentificationSchema kept = said.createAndAddPDFAIdentificationSchema();
        kept.setPart(PART);
        try {
            kept.setConformance("B");
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            new XmpSerializer().serialize(said, bytes, true);
            PDMetadata metadata = new PDMetadata(document);
            metadata.importXMPMetadata(bytes.toByteArray());
            document.getDocumentCatalog().setMetadata(metadata);
        } catch (BadFieldValueException | TransformerException e) {
            throw new IOException("The metadata could not be written", e);
        }
        byte[] srgb = ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData();
        PDOutputIntent intent = new PDOutputIntent(document, new ByteArrayInputStream(srgb));
        intent.setInfo("sRGB IEC61966-2.1");
        intent.setOutputCondition("sRGB IEC61966-2.1");
        intent.setOutputConditionIdentifier("sRGB IEC61966-2.1");
        intent.setRegistryName("http://www.color.org");
        document.getDocumentCatalog().addOutputIntent(intent);
    }
}
