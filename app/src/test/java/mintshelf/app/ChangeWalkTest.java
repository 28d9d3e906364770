package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import mintshelf.app.store.change.PaperStore;
import mintshelf.core.revision.StageClass;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** From what is wrong at berth 3 to the notice: request with evidence, order with reach and old ones, board, notice, who is told. */
class ChangeWalkTest extends InBrowser {
    private final long shelf = SERVER.shelf();
    private final Orders orders = new Orders(SERVER);
    private int clicks;

    private void click(String text) {
        clicks++;
        browser.press(text);
    }

    private static String number(long item) {
        return SERVER.document(item).number();
    }

    private static long id(String path) {
        return Long.parseLong(path.replaceFirst("\\?.*", "").replaceAll("\\D", ""));
    }

    /** Files with other bytes under the names that they have on the shelf. */
    private static void bring(List<Long> items) throws IOException {
        Path folder = Files.createTempDirectory("mint-shelf-files-");
        for (long item : items) {
            Path file = folder.resolve(SERVER.document(item).fileName());
            Files.write(file, Review.sheet("duplex " + item));
            browser.find("[data-row='" + item + "'] input[type=file]").sendKeys(file.toString());
        }
    }

    @Test
    void threeDocumentsGoFromWhatIsWrongToTheirNoticeInLessThanSeventeenClicks() throws Exception {
        List<Long> items = new ArrayList<>();
        for (String name : List.of("cone.dxf", "ring.dxf", "pipe.dxf")) items.add(orders.released(shelf, name));
        long report = SERVER.released(shelf, "test report " + Server.key() + ".txt");
        String three = items.stream().map(String::valueOf).collect(Collectors.joining(","));

        // Asked from a selection, with the report as evidence; Enter sends it.
        browser.signIn("priya");
        browser.open("/ask-for-change?items=" + three);
        browser.find("#reason").sendKeys("pits 0.4 mm deep at berth 3");
        browser.find("input[name=how][value=request]").sendKeys(Keys.SPACE);
        browser.find("#evidence").sendKeys(number(report) + " v1");
        browser.find("#title").sendKeys("Intake in duplex" + Keys.ENTER);
        browser.awaitText("Put it before the board");
        long request = id(browser.path());
        assertThat(browser.text()).contains(number(report), "Being written", "3 documents");

        // Put on an order at once, undecided.
        click("Put it on an order");
        browser.find("#reason").sendKeys("duplex 2205 below low water");
        browser.find("#title").sendKeys(Keys.ENTER);
        browser.awaitText("How far it reaches");
        String order = browser.path();
        assertThat(browser.text()).contains("being written: accepted when the order is carried out");

        // What becomes of the old ones.
        click("say it");
        click("Say");
        browser.find("[name='quantity.STOCK']").sendKeys("6");
        browser.find("[name='what.STOCK']").sendKeys("scrap");
        browser.find("[name='cost.STOCK']").sendKeys("792" + Keys.ENTER);
        browser.awaitText("792.00 EUR");

        browser.signIn("oluwaseun");
        browser.open(order);
        click("Start the work on 3 documents");
        browser.awaitText("nothing checked in yet");

        browser.signIn("priya");
        browser.open(order);
        click("Check out these 3 lines");
        click("Check out 3 documents");
        browser.await(
                b -> items.stream().allMatch(i -> SERVER.document(i).holder().isPresent()));
        browser.open("/check-in");
        browser.awaitText("What changed");
        bring(items);
        click("Check in 3 documents");
        browser.awaitText("new version");
        browser.open(order);
        browser.awaitText("3 ready");
        click("Put before the board");
        click("Put before the board");
        browser.awaitText("is asked now");

        for (String signer : List.of("hedda", "oluwaseun")) {
            browser.signIn(signer);
            browser.open(order);
            click("Sign as");
            click("Sign all 4");
            browser.awaitText(signer.equals("hedda") ? "Still to decide" : "can be carried out");
        }
        browser.open(order);
        click("Carry out");
        browser.awaitText("is accepted with it");
        assertThat(browser.text()).contains(number(request), "opened the order", "signed");
        click("Carry out all 3 lines");
        browser.awaitText("3 lines are done");
        assertThat(clicks).isLessThan(17);

        long notice = SERVER.bean(PaperStore.class)
                .order(id(order))
                .orElseThrow()
                .notice()
                .orElseThrow();
        assertThat(SERVER.document(request).current().stage().stageClass()).isEqualTo(StageClass.RELEASED);
        assertThat(items)
                .allMatch(i -> SERVER.document(i)
                        .released()
                        .flatMap(r -> r.label())
                        .filter("B"::equals)
                        .isPresent());
        try (var page = Loader.loadPDF(SERVER.bytes(notice))) {
            assertThat(new PDFTextStripper().getText(page))
                    .contains(number(request), "in stock: 6 scrap, 792.00 EUR", number(items.get(2)), "A → B");
        }
        assertThat(orders.told("priya")).anyMatch(s -> s.contains("carried out " + number(id(order))));
        browser.signIn("rafael");
        browser.open("/documents/" + notice);
        browser.awaitText("Fetch the DOCX");
    }
}
