package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.PackStructure;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.app.use.structure.PackStructure.Plan;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** A structure packed for somebody: it opens wherever it is unpacked, and who got what is kept. */
class PackTest extends InDesign {
    private final PackStructure structure = server.bean(PackStructure.class);
    private final KeepPack packs = server.bean(KeepPack.class);

    private static Asked asked(Layout layout, boolean pages) {
        return new Asked(
                StructureView.LATEST,
                Optional.empty(),
                Optional.empty(),
                LocalDate.of(2100, 1, 1),
                layout,
                true,
                pages,
                true);
    }

    private Map<String, byte[]> archive(Web web, long pack) throws IOException, InterruptedException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(web.stream("/packs/" + pack + "/files.zip"))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                files.put(entry.getName(), zip.readAllBytes());
        }
        return files;
    }

    private static List<String> names(byte[] step) throws IOException {
        return StepReader.read(new ByteArrayInputStream(step))
                .orElseThrow(r -> new IllegalStateException(r.says()))
                .externals()
                .stream()
                .map(StepModel.External::name)
                .toList();
    }

    @Test
    void inOneFolderEveryFileNamesTheOthersAsTheyLieThere() throws Exception {
        // Written as somebody's drive has it, and of two files of one name.
        long other = server.file(
                "priya",
                server.shelf(),
                "part-model",
                name(1010, " part.stp"),
                from + "6010",
                StructureTest.assembly("other " + mark),
                false);
        long above = server.file(
                "priya",
                shelf,
                "part-model",
                "above" + mark + ".stp",
                from + "6000",
                StructureTest.assembly(
                        "above", "C:\\\\work\\\\" + name(1010, " part.stp"), 1, name(1000, " part.stp"), 2),
                false);
        Plan plan = structure.plan(priya, above, asked(Layout.ONE_FOLDER, true));
        assertThat(plan.entries()).hasSize(6);
        assertThat(plan.rewritten()).isEqualTo(1);
        assertThat(plan.absent()).containsExactly("Not in it: no.stp");
        long pack = packs.keep(priya, above, Server.key(), asked(Layout.ONE_FOLDER, true), "the yard", "to quote from");
        Map<String, byte[]> files = archive(Web.as(server, "priya"), pack);
        byte[] top = Optional.ofNullable(files.get("above" + mark + ".stp")).orElseThrow();
        assertThat(names(top)).containsExactly(name(1010, " part.stp"), name(1000, " part.stp"));
        assertThat(files.keySet()).containsAll(names(top)).contains(name(1000, " sheet.dxf"), name(1000, " sheet.pdf"));
        assertThat(new String(
                        Optional.ofNullable(files.get(name(1000, " sheet.pdf"))).orElseThrow(),
                        StandardCharsets.ISO_8859_1))
                .startsWith("%PDF");
        assertThat(new String(Optional.ofNullable(files.get("list.csv")).orElseThrow(), StandardCharsets.UTF_8))
                .contains(from + "1010", "names in it are written for this pack");
        assertThat(files).containsKeys("list.xlsx", "contents.txt");
        try (PDDocument list =
                Loader.loadPDF(Optional.ofNullable(files.get("list.pdf")).orElseThrow())) {
            assertThat(new PDFTextStripper().getText(list))
                    .contains(from + "1010", "for the yard: to quote from", "packed by Priya", "page 1 of");
        }
        assertThat(text(above)).as("the shelf's file stays").contains("C:\\\\work");
        assertThat(server.document(other).head().number()).isEqualTo(1);
        assertThat(Web.as(server, "priya").get("/documents/" + part + "/record").body())
                .contains("packed version 1 for the yard", "to quote from");
    }

    @Test
    void asOnTheShelvesNothingNeedsToBeWrittenAndWhatMovesOnIsPackedAsItWas() throws IOException, InterruptedException {
        Plan plan = structure.plan(priya, top, asked(Layout.AS_ON_SHELVES, false));
        assertThat(plan.rewritten()).isZero();
        long pack = packs.keep(priya, top, Server.key(), asked(Layout.AS_ON_SHELVES, false), "the yard", "to look at");
        server.checkOut("priya", part);
        server.checkIn("priya", part, StructureTest.assembly("moved on " + mark), false);
        Map<String, byte[]> files = archive(Web.as(server, "priya"), pack);
        assertThat(files.entrySet().stream()
                        .filter(f -> f.getKey().endsWith(name(1010, " part.stp")))
                        .map(f -> new String(f.getValue(), StandardCharsets.US_ASCII)))
                .hasSize(1)
                .allSatisfy(t -> assertThat(t).doesNotContain("moved on"));
        String page = Web.as(server, "priya").get("/packs/" + pack).body();
        assertThat(page).contains("now at v2", "for the yard");
        assertThat(Web.as(server, "priya").get("/packs").body()).contains("to look at");
        // It is one's own.
        assertThatThrownBy(() -> packs.kept(server.actor("tomasz"), pack)).isInstanceOf(NotThere.class);
    }

    @Test
    void whatDoesNotLetItselfBeWrittenGoesAsItIsAndTheListSaysSo() throws IOException, InterruptedException {
        String signed = new String(
                        StructureTest.assembly("signed", "D:/drive/" + name(1010, " part.stp"), 1),
                        StandardCharsets.US_ASCII)
                + "SIGNATURE;\nabc\nENDSEC;\n";
        long above = server.file(
                "priya",
                shelf,
                "part-model",
                "signed" + mark + ".stp",
                from + "7000",
                signed.getBytes(StandardCharsets.US_ASCII),
                false);
        long pack = packs.keep(priya, above, Server.key(), asked(Layout.ONE_FOLDER, false), "the yard", "to look at");
        Map<String, byte[]> files = archive(Web.as(server, "priya"), pack);
        assertThat(new String(
                        Optional.ofNullable(files.get("signed" + mark + ".stp")).orElseThrow(),
                        StandardCharsets.US_ASCII))
                .isEqualTo(signed);
        for (String list : List.of("list.csv", "contents.txt"))
            assertThat(new String(Optional.ofNullable(files.get(list)).orElseThrow(), StandardCharsets.UTF_8))
                    .as(list)
                    .contains("signed" + mark, "The file is signed")
                    .doesNotContain("are written for this pack");
    }

    @Test
    void withoutWhoGetsItAndWhatForNothingIsPacked() {
        assertThatThrownBy(() -> packs.keep(priya, top, Server.key(), asked(Layout.ONE_FOLDER, false), " ", "x"))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> structure.plan(server.actor("rafael"), top, asked(Layout.ONE_FOLDER, false)))
                .isInstanceOf(NotThere.class);
        server.release("priya", part);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + part + "/structure")
                        .body())
                .doesNotContain("Pack it for somebody");
        assertThatThrownBy(() -> structure.plan(server.actor("rafael"), part, asked(Layout.ONE_FOLDER, false)))
                .isInstanceOf(NotThere.class);
        String key = Server.key();
        long first = packs.keep(priya, top, key, asked(Layout.ONE_FOLDER, false), "the yard", "x");
        assertThat(packs.keep(priya, top, key, asked(Layout.ONE_FOLDER, false), "the yard", "x"))
                .isEqualTo(first);
        String page = Web.as(server, "priya")
                .post(
                        "/documents/" + top + "/pack",
                        Map.of("actKey", Server.key(), "layout", "one", "receiver", "", "purpose", "y"))
                .body();
        assertThat(page).contains("Who gets it");
    }
}
