package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.RevisionBlock;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;

/** A whole structure is released; a released drawing is revised: from the question to what the shop gets. */
class ReleaseWalksTest extends InBrowser {
    private final long shelf = SERVER.shelf();
    private final Review review = new Review(SERVER);

    private long part(String name) {
        String own = name + " " + Server.key() + ".txt";
        return SERVER.file("priya", shelf, Server.PLAIN, own, own.getBytes(StandardCharsets.UTF_8), false);
    }

    private long over(String name, long... components) {
        long item = part(name);
        for (long c : components) SERVER.refer(SERVER.document(item).head().version(), c, "part " + c + ".txt");
        return item;
    }

    private static boolean released(long item) {
        return SERVER.document(item).released().isPresent();
    }

    @Test
    void anAssemblyWhoseComponentsAreNotReleasedIsReleasedTogether() {
        long screw = SERVER.released(shelf, "screw " + Server.key() + ".txt");
        long liner = part("liner");
        long clamp = over("clamp", liner, screw);
        long top = over("stilling well", clamp);
        SERVER.checkOut("tomasz", liner);
        String number = SERVER.document(liner).number();

        // Why can this not be released? The single release is the plan.
        browser.signIn("priya");
        browser.open("/documents/" + top);
        browser.awaitText(" waits:");
        browser.press("What it takes, by what helps");
        browser.awaitText("Why can this not be released?");
        assertThat(browser.text()).contains("3 move together, 1 is in the way", "held by Tomasz", "Fine already");
        assertThat(browser.all(".plan-graph .box")).hasSize(4);
        browser.press("Ask for 1");
        browser.awaitText("1 person is asked, on Today and by mail.");

        // Who holds it learns of that, and checks it in.
        browser.signIn("tomasz");
        browser.awaitText("asks for " + number);
        SERVER.checkIn("tomasz", liner, "liner, thinner " + Server.key(), false);

        // Another tab has the plan of before: nothing happens, and it says so.
        browser.signIn("priya");
        browser.open("/release-plan?items=" + top);
        browser.awaitText("Release these 3 together");
        SERVER.checkOut("tomasz", clamp);
        browser.press("Release these 3 together");
        browser.awaitText("The world has moved on.");
        assertThat(List.of(liner, clamp, top)).noneMatch(ReleaseWalksTest::released);
        SERVER.checkIn("tomasz", clamp, "clamp " + Server.key(), false);
        SERVER.refer(SERVER.document(clamp).head().version(), liner, "liner.txt");
        browser.open("/release-plan?items=" + top);
        browser.find("#remark").sendKeys("for the harbour");
        browser.press("Release these 3 together");
        browser.awaitText("3 documents are released.");
        assertThat(List.of(liner, clamp, top)).allMatch(ReleaseWalksTest::released);

        browser.signIn("rafael");
        for (long item : new long[] {liner, clamp, top}) {
            browser.open("/documents/" + item);
            assertThat(browser.text()).contains("Released");
        }
        browser.open("/documents/" + top + "/structure");
        assertThat(browser.text()).contains(number, SERVER.document(clamp).number());
    }

    private static byte[] fetched(String login, long item, int version) {
        return Web.as(SERVER, login)
                .bytes("/documents/" + item + "/versions/" + version + "/file")
                .body();
    }

    private static List<Map<String, String>> rows(byte[] sheet) {
        return RevisionBlock.readyMade().read(((Outcome.Granted<DxfDrawing>) DxfDrawing.read(sheet)).value());
    }

    private void makePages(long item) {
        var runs = SERVER.bean(MakeOutputs.class);
        browser.await(b -> !runs.makeNext()
                && SERVER
                        .bean(OutputStore.class)
                        .of(SERVER.document(item).head().version())
                        .stream()
                        .noneMatch(OutputStore.Output::isWaiting));
    }

    @Test
    void aReleasedDrawingIsRevisedAndItsSheetSaysSo() throws IOException {
        long item = SERVER.file(
                "priya",
                shelf,
                "drawing",
                "plate " + Server.key() + ".dxf",
                SheetMapTest.sheet("Plate", true, 4),
                true);
        SERVER.checkIn("priya", item, SheetMapTest.sheet("Plate", true, 5), false);
        review.release(item);
        makePages(item);
        int a = SERVER.document(item).head().number();
        byte[] inForce = fetched("rafael", item, a);

        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Start the next revision");
        browser.find("#reason").sendKeys("holes for M6 glands");
        browser.press("Start the revision");
        browser.awaitText("A is what everybody else gets");
        byte[] started = SERVER.bytes(item);
        assertThat(rows(started))
                .last()
                .satisfies(b -> assertThat(b)
                        .containsEntry("revision", "B")
                        .containsEntry("description", "holes for M6 glands")
                        .doesNotContainKey("date"));
        String changed = new String(started, StandardCharsets.ISO_8859_1).replaceFirst("40\r\n5.0", "40\r\n6.6");
        SERVER.checkIn("priya", item, changed.getBytes(StandardCharsets.ISO_8859_1), false);

        // The shop still gets A, byte for byte, and learns nothing of B.
        browser.signIn("rafael");
        browser.open("/documents/" + item);
        assertThat(browser.text()).contains("Released").doesNotContain("M6 glands", "Replaced");
        assertThat(fetched("rafael", item, a)).isEqualTo(inForce);

        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Send to review");
        browser.awaitText("Who is asked");
        browser.press("Send 1 document to review");
        browser.awaitText("is asked now");
        String round = browser.path();
        for (String signer : List.of("hedda", "oluwaseun")) {
            browser.signIn(signer);
            browser.open(round);
            browser.awaitText("⌀ 10.0 → ⌀ 13.2");
            browser.press("Sign");
            browser.awaitText(signer.equals("hedda") ? "Still to decide" : "That was the last sign-off");
        }
        makePages(item);

        browser.signIn("rafael");
        browser.open("/documents/" + item);
        assertThat(browser.all(".tab")).extracting(t -> t.getText()).contains("B");
        int b = SERVER.document(item).head().number();
        assertThat(rows(fetched("rafael", item, b)))
                .hasSize(2)
                .last()
                .satisfies(r -> assertThat(r)
                        .containsEntry("revision", "B")
                        .containsEntry("approved", "O. Adebari")
                        .containsKeys("date", "zone"));
        browser.open("/documents/" + item + "?version=" + a);
        assertThat(browser.driver().findElement(By.cssSelector(".margin-mark")).getText())
                .isEqualTo("Replaced by B");
        byte[] pdf = Web.as(SERVER, "rafael")
                .bytes("/documents/" + item + "/versions/" + a + "/pdf")
                .body();
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document)).contains("Replaced by B");
        }
    }
}
