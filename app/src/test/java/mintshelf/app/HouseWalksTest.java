package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** A house sets itself up through its pages, on a house of its own. */
@Tag("browser")
class HouseWalksTest extends InAHouse {
    private static Browser browser;

    @BeforeAll
    static void startBrowser() {
        browser = new Browser(server.origin());
    }

    @AfterAll
    static void stopBrowser() {
        browser.close();
    }

    private static void choose(String css, String text) {
        new Select(browser.find(css)).selectByVisibleText(text);
    }

    private static void type(String css, String text) {
        browser.find(css).clear();
        browser.find(css).sendKeys(text);
    }

    /** Does something that leads to a page, and waits until that is there: the one before may look the same. */
    private static void turned(Runnable act) {
        browser.driver().executeScript("window.pageBefore = true");
        act.run();
        browser.await(b -> Boolean.TRUE.equals(
                b.driver().executeScript("return !window.pageBefore && document.readyState === 'complete'")));
    }

    /**
     * A series, a route of five stops with two signers of three, a kind with letters of its own, a filing rule, a person with a grant and a
     * deputy: the next file that is dropped follows all of them to its release.
     */
    @Test
    void aNewKindWithItsOwnLettersAndRouteIsFollowedByTheNextDroppedFile() throws IOException {
        String weld = "Weld " + mark;
        server.add("mika" + mark, "Mika Sund", "checker");
        server.add("liv" + mark, "Liv Holm", "checker");
        long shelf = server.shelf();
        browser.signIn("ines");

        browser.open("/house/series");
        type("#name", weld);
        type("#pattern", "W-{n:3}");
        browser.press("Make the series");
        browser.awaitText("W-001");

        browser.open("/house/sign-offs/check");
        browser.press("Copy as a new rule…");
        browser.find("#copy-name").sendKeys(weld + " inspection");
        browser.press("Make the copy");
        browser.awaitText("a copy of Check");
        type("input[aria-label='How many sign line 1']", "2");
        type("input[aria-label='What line 1 says']", "read");
        type("input[aria-label='Field for the signer of line 1']", "welded_by");
        type("input[aria-label='Field for the day of line 1']", "");
        type("#why", "two look at a weld");
        browser.press("Keep as edition 2");
        browser.awaitText("two look at a weld");
        assertThat(browser.find(".day-table").getText()).contains("2 of the role Checker", "due in 2 days");

        browser.open("/house/routes/reviewed");
        browser.press("Copy as a new route…");
        browser.find("#copy-name").sendKeys(weld);
        browser.press("Make the copy");
        browser.awaitText("a copy of Reviewed");
        browser.press("Draw edition 2…");
        browser.find("svg.route-map a[href*='move=release']").click();
        browser.awaitText("Pull out a stop");
        type("input[placeholder='With quality']", "Inspection");
        browser.press("Pull it out");
        browser.awaitText("What is in Inspection cannot be returned");
        assertThat(browser.find("[action$='/weld-" + mark + "'] button").isEnabled())
                .as("unsound, it cannot be kept")
                .isFalse();
        browser.press("Add the way back from Inspection");
        browser.awaitText("Every stop can be reached");
        browser.open("/house/routes/weld-" + mark + "/draw?move=release");
        choose("select[name=signOff]", weld + " inspection");
        browser.press("Say it so");
        browser.awaitText("Every stop can be reached");
        // The keyboard alone takes the last step back.
        turned(() -> browser.find("button[data-key=z]").sendKeys(Keys.ENTER));
        browser.open("/house/routes/weld-" + mark + "/draw?move=release");
        choose("select[name=signOff]", weld + " inspection");
        turned(() -> browser.press("Say it so"));
        type("#why", "welds are inspected by two");
        browser.press("Keep as edition 2");
        browser.awaitText("welds are inspected by two");
        assertThat(browser.text()).contains("asks by the sign-off rule “" + weld + " inspection”");

        browser.open("/house/kinds/drawing");
        browser.press("Copy as a new kind…");
        browser.find("#copy-name").sendKeys(weld + " sheet");
        browser.press("Make the copy");
        browser.awaitText("a copy of drawing");
        choose("select[name=series]", weld);
        choose("select[name=revisions]", "a list of our own:");
        type("input[name=own]", "P, Q, R");
        choose("select[name=route]", weld);
        type("#why", "welds have their own letters");
        browser.press("Keep as edition 2");
        browser.awaitText("welds have their own letters");
        browser.press("Lay beside 2");
        browser.awaitText("Edition 2 beside 1");
        assertThat(browser.text()).contains("P, Q, R; taken at the start of work", "was: A, B, C");

        browser.open("/house/filing");
        int rows = browser.all(".filing-row").size();
        type("input[name='place." + (rows - 1) + "']", "0");
        type("input[name='named." + (rows - 1) + "']", "^weld" + mark);
        choose("select[name='kind." + (rows - 1) + "']", weld + " sheet");
        browser.press("Keep as edition");
        browser.awaitText("Set 1 back in force");

        browser.open("/house/people");
        choose("select[name=who]", "Mika Sund");
        choose("select[name=role]", "Designer");
        choose("select[name=place]", "on " + server.shelfName(shelf));
        browser.press("Give it");
        browser.awaitText("is Designer, on " + server.shelfName(shelf));

        browser.open("/house/try?name=weld" + mark + "+bracket.dxf");
        browser.awaitText("the next of the series");
        assertThat(browser.find("#answer").getText()).contains(weld + " sheet", "W-001", "then", "In preparation");

        browser.signIn("mika" + mark);
        browser.open("/shelves/" + shelf);
        Path folder = Files.createTempDirectory("mint-shelf-files-");
        Path file = Files.write(folder.resolve("weld" + mark + " bracket.dxf"), Review.sheet("bracket " + mark));
        browser.find("[data-file-input]").sendKeys(file.toString());
        browser.awaitText("Filing sheet");
        assertThat(browser.text()).contains("filing rule 1");
        browser.press("File 1 document");
        browser.awaitText("W-001");
        browser.press("W-001");
        browser.awaitText("More for W-001");
        assertThat(browser.find(".tab.pending").getText()).isEqualTo("P");
        browser.find(".stage-map summary").click();
        browser.await(b -> !b.all(".stage-map .stop.at").isEmpty());
        assertThat(browser.all(".stage-map .stop")).hasSize(6);
        long item = Long.parseLong(browser.path().replaceAll("\\D", ""));

        server.checkIn("mika" + mark, item, Review.sheet("seam " + mark), false);
        Review review = new Review(server);
        long round = review.send("mika" + mark, item);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        long second = review.store().openRound(item).orElseThrow();
        browser.signIn("hedda");
        browser.open("/rounds/" + second);
        browser.press("Sign");
        browser.awaitText("signed");
        assertThat(server.document(item).released()).as("two are asked").isEmpty();
        review.sign("liv" + mark, second);
        assertThat(server.document(item).released().orElseThrow().shown()).isEqualTo("P");
    }

    @Test
    void aDroppedFileIsTriedAndNothingIsStored() throws IOException {
        browser.signIn("ines");
        server.shelf();
        int before = server.db().fetchCount(DSL.table("upload"));
        browser.open("/house/try");
        Path folder = Files.createTempDirectory("mint-shelf-files-");
        Path file = Files.write(folder.resolve("lid " + mark + ".dxf"), Review.sheet("lid " + mark));
        browser.find("[data-file]").sendKeys(file.toString());
        browser.awaitText("Nothing was stored.");
        browser.awaitText("from the title block");
        assertThat(browser.text()).contains("316L", "it would stand in In preparation", "Hedda Lysgaard");
        choose("select[name=person]", "Rafael Quiroz");
        browser.find(".try-form .btn-mint").click();
        browser.await(b -> b.find("#answer").getText().contains("may not"));
        assertThat(browser.find("#answer").getText()).contains("may not file documents");
        assertThat(server.db().fetchCount(DSL.table("upload"))).isEqualTo(before);
    }
}
