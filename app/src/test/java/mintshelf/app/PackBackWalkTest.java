package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import mintshelf.app.use.structure.KeepPack;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.core.reference.PackNames.Layout;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a supplier did in a folder of theirs comes back as that folder. */
class PackBackWalkTest extends InBrowser {
    @TempDir
    Path theirs;

    @Test
    void aFolderComesBackAndIsTaken() throws Exception {
        long shelf = SERVER.shelf();
        String mark = "P" + Long.toHexString(shelf) + "x";
        long part = SERVER.file(
                "priya",
                shelf,
                "part-model",
                mark + "1 part.stp",
                mark + "-1",
                StructureTest.assembly("part " + mark),
                false);
        long above = SERVER.file(
                "priya",
                shelf,
                "part-model",
                mark + "2 above.stp",
                mark + "-2",
                StructureTest.assembly("above " + mark, mark + "1 part.stp", 2),
                false);
        long pack = SERVER.bean(KeepPack.class)
                .keep(
                        SERVER.actor("priya"),
                        above,
                        Server.key(),
                        new Asked(
                                StructureView.LATEST,
                                Optional.empty(),
                                Optional.empty(),
                                LocalDate.of(2100, 1, 1),
                                Layout.ONE_FOLDER,
                                false,
                                false,
                                false),
                        "the foundry",
                        "to cast");
        unpack(pack);
        Path changed = theirs.resolve("yard").resolve(mark + "1 part.stp");
        Files.writeString(
                changed, Files.readString(changed, StandardCharsets.US_ASCII).replace("'part ", "'stronger part "));
        Files.write(theirs.resolve("yard/core.stp"), StructureTest.assembly("core " + mark));
        Files.write(theirs.resolve("yard/empty.stp"), new byte[0]);
        SERVER.checkOut("priya", part);

        browser.signIn("priya");
        browser.open("/packs/" + pack + "/back");
        browser.find("[data-folder]").sendKeys(theirs.resolve("yard").toString());
        browser.awaitText("“empty.stp” is empty");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
        // Another choice takes the place of the first, also one that is made while a file is still on its way.
        browser.find("[data-files]").sendKeys(theirs.resolve("yard/core.stp").toString());
        browser.awaitText("1 file,");
        browser.find("[data-folder]").sendKeys(theirs.resolve("yard").toString());
        browser.awaitText("“empty.stp” is empty");
        browser.press("See what came back");
        browser.awaitText("as it was sent");
        assertThat(browser.text()).contains("new version", "new: can be filed", "not taken", "It did not come");
        assertThat(browser.all("input[name=fresh]")).hasSize(1);
        browser.press("Take what is chosen");
        browser.awaitText("new version 2");
        assertThat(SERVER.document(part).head().number()).isEqualTo(2);
        assertThat(SERVER.document(above).head().number()).isEqualTo(1);
        assertThat(new String(SERVER.bytes(part), StandardCharsets.US_ASCII)).contains("stronger part");
    }

    private void unpack(long pack) throws IOException, InterruptedException {
        Path folder = Files.createDirectories(theirs.resolve("yard"));
        try (ZipInputStream zip = new ZipInputStream(Web.as(SERVER, "priya").stream("/packs/" + pack + "/files.zip"))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                Files.write(folder.resolve(entry.getName()), zip.readAllBytes());
        }
    }
}
