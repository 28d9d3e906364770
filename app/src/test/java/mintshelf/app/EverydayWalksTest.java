package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.Multipart;
import jakarta.mail.Part;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import java.util.regex.Pattern;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.core.Dxf;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** Walks of the job through the real pages, from sign-in to what a person would look at. */
class EverydayWalksTest extends InBrowser {

    static byte[] sheet(String number, String title, String note) {
        return Dxf.of(
                "\r\n",
                Charset.forName("windows-1252"),
                "0 SECTION",
                "2 HEADER",
                "9 $ACADVER",
                "1 AC1015",
                "9 $DWGCODEPAGE",
                "3 ANSI_1252",
                "0 ENDSEC",
                "0 SECTION",
                "2 ENTITIES",
                "0 INSERT",
                "2 TITLE",
                "66 1",
                "0 ATTRIB",
                "10 5.0",
                "20 20.0",
                "1 " + number,
                "2 NUMBER",
                "0 ATTRIB",
                "10 5.0",
                "20 30.0",
                "1 " + title,
                "2 TITLE",
                "0 ATTRIB",
                "10 5.0",
                "20 40.0",
                "1 316L",
                "2 MATERIAL",
                "0 SEQEND",
                "0 TEXT",
                "8 NOTES",
                "10 5.0",
                "20 5.0",
                "40 3.5",
                "1 " + note,
                "0 ENDSEC",
                "0 EOF");
    }

    /** Files a drawing as it is read, and gives its id. */
    static long drawing(long shelf, String name, String number) {
        FilingSheets filing = SERVER.bean(FilingSheets.class);
        long sheet = filing.open(
                SERVER.actor("priya"),
                shelf,
                OptionalLong.empty(),
                List.of(SERVER.bring("priya", name, sheet(number, "Drawn", "Holes for M6 glands"))));
        assertThat(SERVER.bean(FileDocuments.class)
                        .file(SERVER.actor("priya"), sheet, Server.key(), false)
                        .problems())
                .isEmpty();
        return filing.sheet(SERVER.actor("priya"), sheet)
                .lines()
                .get(0)
                .row()
                .item()
                .orElseThrow();
    }

    @Test
    void aSheetIsDrawnZoomedAndItsLayersAreSwitched() {
        long shelf = SERVER.shelf();
        long item = drawing(shelf, "viewer.dxf", "VW" + shelf + "-1");
        browser.signIn("priya");
        browser.open("/documents/" + item);
        assertThat(browser.all(".sheet .drawing text"))
                .extracting(t -> t.getText())
                .contains("Holes for M6 glands", "Drawn");
        browser.find(".sheet .whole").click();
        browser.await(b -> b.path().endsWith("/versions/1/sheet"));
        browser.awaitText("100 %");
        browser.press("Closer");
        browser.awaitText("140 %");
        browser.driver().switchTo().activeElement();
        browser.find("[data-stage]").sendKeys("0");
        browser.awaitText("100 %");
        browser.dark(true);
        assertThat(
                        browser.driver()
                                .executeScript(
                                        "const s = e => getComputedStyle(document.querySelector(e)); return s('.drawing text').color + s('.drawing').backgroundColor"))
                .isEqualTo("rgb(20, 32, 28)rgb(255, 255, 255)");
        browser.dark(false);
        browser.press("Layers");
        browser.find("[data-toggle-layer]").click();
        assertThat(browser.find(".drawing g").getAttribute("visibility")).isEqualTo("hidden");
    }

    private static Path write(String name, byte[] bytes) throws IOException {
        Path folder = Files.createTempDirectory("mint-shelf-files-");
        return Files.write(folder.resolve(name), bytes);
    }

    private static long id() {
        return Long.parseLong(browser.path().replaceAll("\\D", ""));
    }

    @Test
    void aNewDrawingIsFiledNumberedAndCheckedInWithFactsFromItsTitleBlock() throws IOException {
        long shelf = SERVER.shelf();
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        browser.awaitText("Nothing on this shelf yet");
        Path drawing = write("wk-1 plate.dxf", sheet("WK-3030", "Køge gland plate", "holes 5.5"));
        Path note = write("berth note.txt", "screen cleaned".getBytes(StandardCharsets.UTF_8));
        browser.find("[data-file-input]").sendKeys(drawing + "\n" + note);
        browser.awaitText("Filing sheet");
        assertThat(browser.find("input[name$='.number']").getAttribute("value")).isEqualTo("WK-3030");
        assertThat(browser.find("input[name$='.title']").getAttribute("value")).isEqualTo("Køge gland plate");
        assertThat(browser.find("input[name$='.fact.material']").getAttribute("value"))
                .isEqualTo("316L");
        assertThat(browser.text()).contains("from the title block").contains("filing rule 2: DXF drawing");
        browser.press("File 2 documents");
        browser.awaitText("WK-3030");
        browser.press("WK-3030");
        browser.awaitText("More for WK-3030");
        assertThat(browser.text())
                .contains("Køge gland plate")
                .contains("316L")
                .contains("In preparation")
                .contains("Check in");
        assertThat(browser.all(".tab.pending")).isNotEmpty();
    }

    @Test
    void checkOutChangeCheckInAndHistoryWithTheBytesThatCameBack() throws IOException {
        long shelf = SERVER.shelf();
        long item = SERVER.file("priya", shelf, "walk two.txt", "first issue", false);
        String number = SERVER.document(item).number();
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Work on it");
        browser.awaitText("You hold version 1 now");
        assertThat(browser.downloaded("walk two.txt")).asString().isEqualTo("first issue");
        browser.press("Check in");
        browser.awaitText("What changed");
        browser.find("[data-row] input[type=file]")
                .sendKeys(write("walk two (1).txt", "second issue".getBytes(StandardCharsets.UTF_8))
                        .toString());
        browser.find("#comment").sendKeys("pulley seat 0.2 deeper");
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        browser.press(number);
        browser.awaitText("pulley seat 0.2 deeper");
        assertThat(browser.all(".strip a")).hasSize(2);
        assertThat(browser.find(".sheet pre").getText()).isEqualTo("second issue");
        browser.find("body").sendKeys("[");
        browser.awaitText("first issue");
        browser.open("/documents/" + item + "/record");
        browser.awaitText("checked in version 2");
        assertThat(browser.text()).contains("checked out version 1").contains("filed " + number);
    }

    @Test
    void reinstateStrayAndBrokenHold() throws IOException {
        long shelf = SERVER.shelf();
        long item = SERVER.file("tomasz", shelf, "walk eight.txt", "anchors on 296", true);
        SERVER.checkIn("tomasz", item, "anchors on 340", true);
        browser.signIn("ines");
        browser.open("/documents/" + item);
        browser.press("More for");
        browser.press("Break the hold");
        browser.find("#reason").sendKeys("away until Monday");
        browser.press("Break the hold of Tomasz Okrent");
        browser.awaitText("Version 2");
        browser.open("/documents/" + item + "?version=1");
        browser.press("More for");
        browser.press("Make version 1 current again");
        browser.awaitText("Make 1 current again as 3");
        browser.press("Make 1 current again");
        browser.awaitText("copy of 1");
        assertThat(browser.all(".strip .arc")).hasSize(1);

        browser.signIn("tomasz");
        browser.awaitText("ended your check-out");
        browser.open("/check-in?items=" + item);
        browser.awaitText("held by nobody; what you bring is kept as a stray");
        browser.find("[data-row] input[type=file]")
                .sendKeys(write("walk eight.txt", "anchors on 300".getBytes(StandardCharsets.UTF_8))
                        .toString());
        browser.press("Check in 1 document");
        browser.awaitText("kept as a stray");
        browser.press("look at it");
        browser.press("Make it version 4");
        // Its words stand on the page of the stray, too: what counts is that it is a version.
        browser.await(b -> SERVER.document(item).head().number() == 4);
        browser.awaitText("anchors on 300");
        assertThat(SERVER.bean(StrayStore.class).kept(item)).isEmpty();
        assertThat(SERVER.document(item).head().number()).isEqualTo(4);
    }

    @Test
    void aReleasedDocumentIsRevisedAndTheFormerRevisionSuperseded() throws IOException {
        long shelf = SERVER.shelf();
        long item = SERVER.released(shelf, "walk seven.txt");
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Start the next revision");
        browser.find("#reason").sendKeys("glands are M6 now");
        browser.press("Start the revision");
        browser.awaitText("A is what everybody else gets");
        browser.signIn("rafael");
        browser.open("/documents/" + item);
        assertThat(browser.all(".tab")).hasSize(1);
        assertThat(browser.text()).contains("Released").doesNotContain("glands are M6");
        SERVER.checkIn("priya", item, "holes 6.6", false);
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Release revision B");
        browser.awaitText("is superseded at the same moment");
        browser.press("Release revision B");
        browser.awaitText("Start the next revision");
        assertThat(browser.all(".strip .bar-superseded")).hasSize(1);
        assertThat(browser.all(".strip .bar-released")).hasSize(1);
    }

    @Test
    void twoPeopleSignOneOfThemOnAPhoneFromTheMailAndTheReleasedSheetCarriesTheirNames() throws Exception {
        long shelf = SERVER.shelf();
        long item = new Review(SERVER).drawing(shelf, "walk five.dxf");
        String number = SERVER.document(item).number();
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Send to review");
        browser.awaitText("Who is asked");
        new Select(browser.find("select[name='named.0']")).selectByVisibleText("Hedda Lysgaard");
        browser.find("#note").sendKeys("holes for M6 glands");
        browser.press("Send 1 document to review");
        browser.awaitText("is asked now");
        String round = browser.path();

        // The mail's link leads a person who is not signed in through the sign-in to the sheet and its buttons.
        String link = mailed("hedda", "Will you sign " + number + " A as checked");
        assertThat(link).endsWith(round);
        browser.driver().manage().deleteAllCookies();
        browser.size(390, 844);
        browser.open(round);
        browser.find("#login").sendKeys("hedda");
        browser.find("#password").sendKeys(Server.PASSWORD);
        browser.press("Sign in");
        browser.awaitText("You sign it as checked");
        assertThat(browser.path()).isEqualTo(round);
        assertThat(SERVER.bean(RoundStore.class)
                        .round(Long.parseLong(round.substring(8)))
                        .orElseThrow()
                        .signOffs())
                .as("following the link signs nothing")
                .isEmpty();
        browser.press("Return");
        assertThat(browser.find("#remark").getAttribute("validationMessage")).contains("needs a remark");
        browser.find("#remark").sendKeys("pattern agrees");
        browser.press("Sign with remarks");
        browser.awaitText("Still to decide: approved for production");
        browser.size(1280, 800);

        browser.signIn("oluwaseun");
        browser.awaitText("to sign as approved for production");
        browser.find("body").sendKeys("gi");
        browser.awaitText("Sign as approved for production?");
        browser.find("a.btn[href='" + round + "']").click();
        browser.awaitText("pattern agrees");
        browser.press("Sign");
        browser.awaitText("That was the last sign-off");
        mailed("priya", number + "; it is released");

        browser.signIn("rafael");
        var runs = SERVER.bean(MakeOutputs.class);
        // The server makes it by itself, too: whoever is first.
        browser.await(b -> !runs.makeNext()
                && SERVER
                        .bean(OutputStore.class)
                        .of(SERVER.document(item).head().version())
                        .stream()
                        .noneMatch(OutputStore.Output::isWaiting));
        browser.open("/documents/" + item);
        assertThat(browser.all(".sheet .drawing text"))
                .extracting(t -> t.getText())
                .contains("Hedda Lysgaard", number, "A");
        browser.press("Fetch the PDF of A");
        byte[] pdf = browser.downloaded(number + "_A.pdf");
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document)).contains("Hedda Lysgaard", number);
        }
    }

    @Test
    void severalDocumentsAreChangedTogetherFromASelectionToANotice() {
        long shelf = SERVER.shelf();
        Review review = new Review(SERVER);
        List<Long> items = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            long item = review.drawing(shelf, "change " + i + ".dxf");
            review.release(item);
            items.add(item);
        }
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        browser.find("body").sendKeys(Keys.ARROW_DOWN);
        for (int i = 0; i < 3; i++) {
            browser.driver().switchTo().activeElement().sendKeys(Keys.SPACE);
            browser.driver().switchTo().activeElement().sendKeys(Keys.ARROW_DOWN);
        }
        browser.press("Ask for a change (3)");
        browser.find("#title").sendKeys("Intake in duplex");
        browser.find("#reason").sendKeys("pitting at berth 3");
        browser.press("Ask for a change of 3 documents");
        browser.awaitText("A board member starts the work");
        String order = browser.path();
        browser.signIn("oluwaseun");
        browser.find("body").sendKeys("gc");
        browser.awaitText("Intake in duplex");
        browser.open(order);
        browser.press("Start the work on 3 documents");
        browser.awaitText("nothing checked in yet");
        browser.signIn("priya");
        browser.open(order);
        browser.press("Put before the board");
        browser.awaitText("is not ready: nothing checked in yet");
        browser.open(order);
        // The page follows the lines by itself.
        for (long item : items) {
            SERVER.checkOut("priya", item);
            SERVER.checkIn("priya", item, Review.sheet("duplex " + item), false);
        }
        browser.awaitText("3 ready");
        browser.press("Put before the board");
        browser.press("Put before the board");
        browser.awaitText("is asked now");
        long round = review.store()
                .openRound(Long.parseLong(order.substring("/orders/".length())))
                .orElseThrow();
        review.sign("hedda", round);
        browser.signIn("oluwaseun");
        browser.open(order);
        browser.press("Sign as decided to go out");
        browser.awaitText("Part of CO");
        browser.press("Sign all 4");
        browser.awaitText("can be carried out");
        browser.open(order);
        browser.press("Carry out");
        browser.awaitText("all of it or nothing");
        assertThat(browser.text()).contains("Revision A is superseded at the same moment");
        browser.press("Carry out all 3 lines");
        browser.awaitText("3 lines are done");
        browser.find(".say a[href^='/documents/']").click();
        browser.awaitText("change notice");
        browser.await(
                b -> (Long) b.driver().executeScript("return document.querySelector('img.paper').naturalWidth") > 0);
        assertThat(browser.text()).contains("Fetch the CSV").contains("Issued");
        browser.open("/documents/" + items.get(1));
        browser.awaitText("B by CO");
    }

    /** Waits for a mail to a person whose text or subject says this, and gives the address of its round. */
    private static String mailed(String login, String says) throws Exception {
        for (int i = 0; i < 150; i++) {
            SERVER.post();
            for (var message : Server.mail().getReceivedMessages()) {
                if (!message.getAllRecipients()[0].toString().startsWith(login + "@")) continue;
                String body = text(message);
                if (!message.getSubject().contains(says) && !body.contains(says)) continue;
                var address = Pattern.compile("http://\\S+/rounds/\\d+").matcher(body);
                assertThat(address.find()).isTrue();
                return address.group();
            }
            Thread.sleep(100);
        }
        throw new AssertionError("No mail to " + login + " says " + says);
    }

    private static String text(Part part) throws Exception {
        if (part.isMimeType("text/plain")) return (String) part.getContent();
        StringBuilder all = new StringBuilder();
        if (part.getContent() instanceof Multipart parts) {
            for (int i = 0; i < parts.getCount(); i++) all.append(text(parts.getBodyPart(i)));
        }
        return all.toString();
    }

    @Test
    void theListIsWalkedSelectedAndPeekedWithTheKeyboardAlone() {
        long shelf = SERVER.shelf();
        for (int i = 1; i <= 3; i++) SERVER.file("priya", shelf, "key" + i + ".txt", "key content " + i + shelf, false);
        // Somebody whose habits no other test has: how a list is sorted is kept for its person.
        String me = "kaja-" + Server.key().substring(0, 8);
        SERVER.add(me, "Kaja Lie", "designer");
        browser.signIn(me);
        browser.find("body").sendKeys("gs");
        browser.await(b -> b.path().equals("/shelves"));
        browser.open("/shelves/" + shelf);
        browser.find("body").sendKeys(Keys.ARROW_DOWN);
        browser.driver().switchTo().activeElement().sendKeys(Keys.ARROW_DOWN);
        browser.driver().switchTo().activeElement().sendKeys(Keys.SPACE);
        browser.driver().switchTo().activeElement().sendKeys(Keys.ARROW_DOWN);
        browser.driver().switchTo().activeElement().sendKeys(Keys.SPACE);
        browser.awaitText("2 selected");
        browser.driver().switchTo().activeElement().sendKeys("v");
        browser.await(b -> b.find("#peek").getText().contains("key content 3"));
        browser.driver().switchTo().activeElement().sendKeys("4");
        browser.await(b -> b.find("#peek").getText().contains("Material"));
        browser.press("Check out 2 documents");
        browser.awaitText("2 documents will be held by you");
        browser.press("Check out 2 documents");
        browser.awaitText("You hold 2 documents");
        browser.find("body").sendKeys("/");
        browser.driver().switchTo().activeElement().sendKeys("key2");
        browser.await(b -> !b.all("#find-hints a").isEmpty());
        browser.driver().switchTo().activeElement().sendKeys(Keys.ARROW_DOWN, Keys.ENTER);
        browser.await(b -> b.path().startsWith("/documents/"));
        assertThat(id()).isPositive();
    }
}
