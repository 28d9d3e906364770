package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;

/** A data manager takes a folder in, with its table, and mends what is in the way. */
class TakeInWalkTest extends InBrowser {
    @TempDir
    Path folder;

    @Test
    void aFolderIsBroughtLookedAtMendedAndTakenIn() throws IOException {
        long shelf = SERVER.shelf();
        Path drive = Files.createDirectories(folder.resolve("drive/clamps/old"));
        drive = folder.resolve("drive");
        Files.writeString(drive.resolve("clamps/TW-3001.txt"), "one " + shelf);
        Files.writeString(drive.resolve("clamps/old/TW-3002.txt"), "two " + shelf);
        Files.writeString(drive.resolve("clamps/unknown.q7z"), "\u0000\u0001three " + shelf);
        Files.writeString(
                folder.resolve("drive.csv"), "file,date\nclamps/TW-3001.txt,3/14/19\nnowhere.txt,2019-01-01\n");
        Files.writeString(folder.resolve("wrong.csv"), "colour\nred\n");

        browser.signIn("ines");
        browser.open("/shelves/" + shelf);
        browser.press("Take in …");
        browser.find("#name").sendKeys("Workshop drive");
        browser.press("Begin");
        browser.awaitText("Drop a folder or a ZIP archive here");
        browser.find("[data-folder-input]").sendKeys(drive.toString());
        browser.awaitText("3 files came");
        browser.find("[data-table-input]").sendKeys(folder.resolve("wrong.csv").toString());
        browser.awaitText("No column is headed");
        browser.find("[data-table-input]").sendKeys(folder.resolve("drive.csv").toString());
        browser.awaitText("Bring it mended…");
        browser.press("Read 3 files");
        browser.awaitText("to be mended 2");
        // The page that came by itself when all was read is one that can be used: a table is brought again.
        browser.find("[data-table-input]").sendKeys(folder.resolve("wrong.csv").toString());
        browser.awaitText("No column is headed");
        assertThat(browser.text())
                .contains("1 line of the table means no file: line 3 (nowhere.txt: no such file)")
                .contains("“3/14/19” is no day that is clear.")
                .contains("No filing rule knows what it is.")
                .contains("2 files stay here until it is mended");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();

        // They come three at a time: which was the first to arrive nobody knows.
        var row = browser.all(".take-in-files tbody tr").stream()
                .filter(r -> r.getText().contains("TW-3001"))
                .findFirst()
                .orElseThrow();
        row.findElement(By.cssSelector("summary")).click();
        var form = row.findElement(By.cssSelector("form"));
        form.findElement(By.name("DATE")).sendKeys("2019-03-14\n");
        browser.awaitText("to be mended 1");
        browser.find("input[name=unknown]").click();
        new Select(browser.find("select[name=stands]")).selectByVisibleText("in preparation");
        browser.press("Look again so");
        browser.awaitText("left out 1");
        assertThat(browser.text()).doesNotContain("to be mended 1");
        browser.press("Take in 2 documents");
        browser.awaitText("taken in 2");
        browser.open("/shelves/" + shelf);
        browser.awaitText("TW-3001");
        assertThat(browser.text()).contains("TW-3002").contains("clamps").contains("old");
        browser.open("/today");
        browser.awaitText("2 documents are taken in");
    }
}
