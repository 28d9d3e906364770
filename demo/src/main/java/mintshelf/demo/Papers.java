package mintshelf.demo;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.destination.PDPageFitDestination;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDDocumentOutline;
import org.apache.pdfbox.pdmodel.interactive.documentnavigation.outline.PDOutlineItem;

/** The papers of the story that are not drawings. */
final class Papers {
    private Papers() {}

    static byte[] specification() {
        return """
                TG40 TIDE GAUGE STATION: SPECIFICATION

                1 Purpose
                The station measures the water level of a harbour basin with a float in a stilling well.

                2 Conditions
                Air temperature      -20 to +50 degrees C
                Salinity             class 3, splash zone
                Measuring range      8.0 m, resolution 1 mm
                Wave damping         intake area 0.6 per cent of the well's cross section

                3 Order of assembly
                3.1 Set the mast TG40-4000 on its base plate; torque of the anchor nuts 120 Nm.
                3.2 Hang the stilling well TG40-1000 by four pipe clamps, liners greased.
                3.3 Mount the encoder head TG40-3000; lead the tape over the pulley.
                3.4 Set the counterweight; the float hangs free at lowest astronomical tide.

                4 Acceptance
                Ten level changes of 0.5 m; reading within 2 mm of the staff each time.
                """.getBytes(StandardCharsets.UTF_8);
    }

    static byte[] report() {
        return """
                TEST REPORT: ENCODER HEAD TG40-3000

                Sample        2 heads, serial 0144 and 0145
                Test          spray, 7 days, 5 per cent salt, 35 degrees C (ISO 9227, neutral)
                Result        no ingress; lid gasket seats over its whole length
                Finding       cable glands M6 need 6.6 mm holes in the gland plate, 5.5 mm binds
                Tested by     M. Solvang
                """.getBytes(StandardCharsets.UTF_8);
    }

    static byte[] torques() {
        return "Anchor nuts M20      120 Nm\nClamp bolts M8        18 Nm\nLid screws M6          6 Nm\n"
                .getBytes(StandardCharsets.UTF_8);
    }

    /** Layers and widths of lines. */
    static byte[] lines() {
        return """
                Lines of TG40 sheets

                layer      width  colour  for
                OUTLINE    0.50   7       edges that are seen
                HIDDEN     0.25   8       edges behind
                CENTRE     0.25   1       axes, pitch circles
                SIZES      0.25   3       dimensions, notes, symbols
                HATCH      0.18   9       sections
                FRAME      0.70   7       frame and title block
                """.getBytes(StandardCharsets.UTF_8);
    }

    /** What fitters take along: four pages, of which the second edition has another torque and one page more. */
    static byte[] guide(int edition) {
        List<String> pages = new ArrayList<>(
                List.of(
                        "1 Before you begin|Close the berth for small craft.|Read the specification TG40-0900 first.|Two fitters, one day.|Bring the torque wrench, 20 to 200 Nm.",
                        "2 Mast and base plate|Set the mast TG40-4000 on its base plate.|Torque of the anchor nuts "
                                + (edition == 1 ? "110" : "120")
                                + " Nm, crosswise.|Grout under the plate when it is level to 2 mm per metre.",
                        "3 Stilling well|Hang the well TG40-1000 by four pipe clamps.|Grease the liners"
                                + (edition == 1 ? "." : " with water proof grease.")
                                + "|Turn the intake away from the wash of ships.",
                        (edition == 1 ? "4" : "5")
                                + " Encoder head|Mount the head TG40-3000.|Lead the tape over the pulley.|The float hangs free at lowest astronomical tide."));
        if (edition > 1)
            pages.add(
                    3,
                    "4 Sensor harness|Lay the harness TG40-3060 along the mast.|Screen of pair 3 to the star point.");
        try (PDDocument document = new PDDocument()) {
            PDDocumentOutline outline = new PDDocumentOutline();
            for (String says : pages) {
                PDPage page = new PDPage(PDRectangle.A4);
                document.addPage(page);
                String[] lines = says.split("\\|");
                try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                    out.beginText();
                    out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA_BOLD), 20);
                    out.newLineAtOffset(72, 740);
                    out.showText(lines[0]);
                    out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 12);
                    for (int i = 1; i < lines.length; i++) {
                        out.newLineAtOffset(0, -28);
                        out.showText(lines[i]);
                    }
                    out.endText();
                    out.addRect(72, 240, 300 + 40 * edition, 160);
                    out.moveTo(72, 240);
                    out.lineTo(372 + 40 * (float) edition, 400);
                    out.stroke();
                }
                PDOutlineItem chapter = new PDOutlineItem();
                chapter.setTitle(lines[0]);
                PDPageFitDestination to = new PDPageFitDestination();
                to.setPage(page);
                chapter.setDestination(to);
                outline.addLast(chapter);
            }
            document.getDocumentCatalog().setDocumentOutline(outline);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            document.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("Writing to memory failed", e);
        }
    }

    /** A file of a program that nobody else has: the harness as its wiring program keeps it. */
    static byte[] harness(int edition) {
        byte[] bytes = new byte[4096];
        new Random(edition).nextBytes(bytes);
        bytes[0] = 0;
        return bytes;
    }

    /** A picture of the site, drawn. */
    static byte[] site() {
        return """
                <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 500" width="800" height="500">
                <rect width="800" height="500" fill="#dfe9ee"/><rect y="330" width="800" height="170" fill="#7fa3b5"/>
                <rect y="290" width="420" height="210" fill="#b9b3a6"/><path d="M420 290h-420v-12h432v22z" fill="#98927f"/>
                <g fill="none" stroke="#2f3b40" stroke-width="7"><path d="M356 278V90"/><path d="M330 278h52"/></g>
                <rect x="436" y="250" width="34" height="230" fill="#c9d2d6" stroke="#2f3b40" stroke-width="3"/>
                <rect x="428" y="206" width="50" height="44" fill="#e9eef0" stroke="#2f3b40" stroke-width="3"/>
                <path d="M420 270h16M420 360h16" stroke="#2f3b40" stroke-width="6"/>
                <path d="M300 120l96-34 8 20-96 34z" fill="#2c4b6b" stroke="#1d2f42" stroke-width="3"/>
                <g stroke="#ffffff" stroke-width="2" opacity=".6"><path d="M500 370h80M610 400h110M520 440h60"/></g>
                <text x="24" y="40" font-family="sans-serif" font-size="20" fill="#2f3b40">Ebbcote quay, berth 3</text></svg>
                """.getBytes(StandardCharsets.UTF_8);
    }
}
