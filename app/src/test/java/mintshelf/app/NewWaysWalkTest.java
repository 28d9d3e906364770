package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import mintshelf.core.drawing.pdf.Paper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;

/** A designer begins documents, brings neutral copies, compares papers, and folds what has one number. */
class NewWaysWalkTest extends InBrowser {
    @TempDir
    Path folder;

    private String file(String name, byte[] bytes) throws IOException {
        return Files.write(folder.resolve(name), bytes).toString();
    }

    private static byte[] foreign() {
        return ("\0\1part " + UUID.randomUUID()).getBytes(StandardCharsets.US_ASCII);
    }

    private void clean() {
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
    }

    @Test
    void aFileOfAForeignProgramIsFiledWithItsCopyAndShownByIt() throws IOException {
        long shelf = SERVER.shelf();
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        String name = "NW" + shelf + "-10 block";
        browser.find("[data-file-input]")
                .sendKeys(file(name + ".prt", foreign()) + "\n"
                        + file(name + ".dxf", Review.sheet("walked " + UUID.randomUUID())));
        browser.awaitText("as its neutral copy");
        browser.awaitText("File 1 document");
        browser.find("[data-apart]").click();
        browser.awaitText("File 2 documents");
        browser.find("tbody [name$='.included']").click();
        browser.awaitText("File 1 document");
        browser.find("tbody [name$='.number']").clear();
        browser.open("/shelves/" + shelf);

        long item = SERVER.file("priya", shelf, "drawing", name + " two.prt", foreign(), false);
        browser.open("/documents/" + item);
        browser.awaitText("Version 1 has none.");
        browser.find(".neutral-copies input[type=file]")
                .sendKeys(file("two.dxf", Review.sheet("brought " + UUID.randomUUID())));
        browser.awaitText("Shown by its neutral copy two.dxf");
        assertThat(browser.all(".sheet svg.drawing")).hasSize(1);
        clean();
        browser.press("Take away");
        browser.awaitText("Version 1 has none.");
    }

    @Test
    void aRowIsDraggedOutAsTheFileThatItIs() {
        long shelf = SERVER.shelf();
        long one = SERVER.file("priya", shelf, "NW" + shelf + "-31 out one.txt", "one " + shelf, false);
        long two = SERVER.file("priya", shelf, "NW" + shelf + "-32 out two.txt", "two " + shelf, false);
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        String dragged = "const row = document.querySelector('.spine[data-id=\"" + one
                + "\"]'); const data = new DataTransfer(); row.dispatchEvent(new DragEvent('dragstart',"
                + " { bubbles: true, dataTransfer: data })); return data.getData('DownloadURL');";
        String out = browser.driver().executeScript(dragged).toString();
        assertThat(out)
                .startsWith("application/octet-stream:NW" + shelf + "-31 out one.txt:")
                .endsWith("/documents/" + one + "/versions/1/file");
        String address = out.substring(out.indexOf(":http") + 1).replace(SERVER.origin(), "");
        assertThat(Web.as(SERVER, "priya").get(address).body()).isEqualTo("one " + shelf);
        // Several that are picked are one archive.
        browser.driver()
                .executeScript("document.querySelectorAll('.spine').forEach((row) => row.dispatchEvent("
                        + "new MouseEvent('click', { bubbles: true, ctrlKey: true })))");
        assertThat(browser.driver().executeScript(dragged).toString())
                .contains("mint-shelf.zip:")
                .contains("/files.zip?items=")
                .contains(Long.toString(two));
    }

    @Test
    void aLargeSheetIsLookedAtBeforeAllOfItIsThere() {
        long shelf = SERVER.shelf();
        StringBuilder d = new StringBuilder("0\nSECTION\n2\nENTITIES\n");
        for (int i = 0; i < 30_000; i++) {
            double x = i % 400;
            double y = i / 400.0;
            d.append("0\nLINE\n8\n")
                    .append(i % 2 == 0 ? "0" : "FINE")
                    .append("\n10\n")
                    .append(x)
                    .append("\n20\n");
            d.append(y)
                    .append("\n11\n")
                    .append(x + 0.5)
                    .append("\n21\n")
                    .append(y + (i == 0 ? 200 : 0.3))
                    .append('\n');
        }
        byte[] dxf = d.append("0\nENDSEC\n0\nEOF\n").toString().getBytes(StandardCharsets.US_ASCII);
        long item = SERVER.file("priya", shelf, "drawing", "NW" + shelf + "-51 large.dxf", dxf, false);
        browser.signIn("priya");
        browser.open("/documents/" + item + "/versions/1/sheet");
        String lines = "return [...document.querySelectorAll('.stage svg path')]"
                + ".reduce((n, p) => n + p.getAttribute('d').split('M').length - 1, 0)";
        browser.await(b -> b.all("[data-rest]").isEmpty());
        assertThat(((Number) browser.driver().executeScript(lines)).intValue()).isEqualTo(30_000);
        String hidden =
                "return document.querySelectorAll('.stage svg g[data-layer=FINE]:not([visibility=hidden])').length";
        assertThat(((Number) browser.driver().executeScript(hidden)).intValue()).isEqualTo(3);
        browser.driver().executeScript("document.querySelector('[data-toggle-layer=FINE]').click()");
        assertThat(((Number) browser.driver().executeScript(hidden)).intValue()).isZero();
        String first = Web.as(SERVER, "priya")
                .get("/documents/" + item + "/versions/1/sheet")
                .body();
        assertThat(first.split("M\\d").length).isBetween(8_000, 8_100);
    }

    @Test
    void aColumnIsAsWideAsOneWantsItAlsoTomorrow() {
        long shelf = SERVER.shelf();
        SERVER.file("priya", shelf, "NW" + shelf + "-41 wide.txt", "wide " + shelf, false);
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        String width = "return document.querySelector('.row-head .c-kind').getBoundingClientRect().width";
        double usual = ((Number) browser.driver().executeScript(width)).doubleValue();
        var edge = browser.find(".row-head .c-kind .col-edge");
        // One stop for the tab key, from where up and down go along.
        browser.find(".row-head [tabindex='0']").sendKeys(Keys.ARROW_DOWN, Keys.ARROW_DOWN);
        assertThat(browser.all(".row-head [tabindex='0']")).hasSize(1);
        assertThat(browser.driver().switchTo().activeElement().getAttribute("aria-label"))
                .isEqualTo("Width of Rev.");
        for (int i = 0; i < 3; i++) edge.sendKeys(Keys.ARROW_RIGHT);
        assertThat(((Number) browser.driver().executeScript(width)).doubleValue())
                .isEqualTo(usual + 30);
        assertThat(browser.driver()
                        .executeScript("return document.querySelector('.spine .c-kind').getBoundingClientRect().width"))
                .isEqualTo(browser.driver().executeScript(width));
        clean();
        for (int tries = 0; tries < 100; tries++) {
            if (Web.as(SERVER, "priya").get("/shelves/" + shelf).body().contains("c-kind:")) break;
            java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
        }
        browser.open("/shelves/" + shelf);
        assertThat(((Number) browser.driver().executeScript(width)).doubleValue())
                .isEqualTo(usual + 30);
        browser.driver()
                .executeScript("document.querySelector('.row-head .c-kind .col-edge').dispatchEvent("
                        + "new MouseEvent('dblclick', { bubbles: true }))");
        assertThat(((Number) browser.driver().executeScript(width)).doubleValue())
                .isEqualTo(usual);
    }

    @Test
    void aDocumentBeginsFromAnotherAndIsHeld() {
        long shelf = SERVER.shelf();
        long from = SERVER.file(
                "priya",
                shelf,
                "drawing",
                "NW" + shelf + "-20 eye.dxf",
                Review.sheet("from " + UUID.randomUUID()),
                false);
        browser.signIn("priya");
        browser.open("/documents/" + from + "/new");
        clean();
        browser.find("#title").clear();
        browser.find("#title").sendKeys("Mooring eye");
        browser.find("#number").sendKeys("NW" + shelf + "-21");
        browser.press("Make it");
        browser.awaitText("You hold version 1 now.");
        assertThat(browser.text())
                .contains("NW" + shelf + "-21")
                .contains("Mooring eye")
                .contains("started from");
        browser.open("/new?like=no-such-number");
        browser.awaitText("no-such-number");
        clean();
    }

    @Test
    void whatHasOneNumberLiesFoldedUnderOneSpine() {
        long shelf = SERVER.shelf();
        String number = "NW" + shelf + "-30";
        SERVER.file("priya", shelf, "drawing", number + " ring.dxf", Review.sheet("ring " + UUID.randomUUID()), false);
        SERVER.file("priya", shelf, "part-model", number + " ring.prt", foreign(), false);
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        assertThat(browser.all(".spine")).hasSize(2);
        browser.press("an item");
        browser.await(b -> b.all(".item-tabs").size() == 1);
        assertThat(browser.all(".spine").stream().filter(r -> r.isDisplayed())).hasSize(1);
        browser.find(".spine").sendKeys(Keys.SPACE);
        browser.awaitText("2 selected");
        // Folded it leads to the page of both; opened to its own.
        assertThat(browser.find(".spine .num a").getDomAttribute("href")).endsWith("/item");
        browser.find(".spine").sendKeys(Keys.ARROW_RIGHT);
        assertThat(browser.all(".spine").stream().filter(r -> r.isDisplayed())).hasSize(2);
        assertThat(browser.find(".spine .num a").getDomAttribute("href")).doesNotEndWith("/item");
        browser.find(".spine").sendKeys(Keys.ARROW_LEFT);
        browser.await(b -> b.find(".spine").getDomAttribute("data-href").endsWith("/item"));
        browser.find(".spine").sendKeys(Keys.ENTER);
        browser.awaitText("Who holds what");
        clean();
        browser.open("/shelves/" + shelf);
        browser.press("a document");
        browser.await(b -> b.all(".item-tabs").isEmpty());
    }

    @Test
    void twoEditionsOfAPaperAreComparedAndSearched() {
        long shelf = SERVER.shelf();
        long item = SERVER.file(
                "priya",
                shelf,
                "report",
                "NW" + shelf + "-40 guide.pdf",
                Paper.pdf("Lid screws 6 Nm", "Hang the float"),
                true);
        SERVER.checkIn("priya", item, Paper.pdf("Lid screws 8 Nm", "Hang the float"), false);
        browser.signIn("priya");
        browser.open("/documents/" + item + "/versions/2/compare");
        browser.awaitText("“6” → “8”");
        assertThat(browser.text()).contains("1 of 2 differs");
        clean();
        browser.open("/documents/" + item + "/versions/2/sheet");
        browser.press("Chapters, find");
        browser.awaitText("About Hang the float");
        browser.find("#find-in").sendKeys("float" + Keys.ENTER);
        browser.awaitText("1 place");
        browser.find(".paper-lines a").click();
        browser.await(b -> b.all("rect.found").size() == 1);
    }
}
