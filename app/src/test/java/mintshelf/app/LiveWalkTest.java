package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A page that is open follows what others do: rows are marked where they stand, the rest is said at the foot. */
@Tag("browser")
class LiveWalkTest {
    private static final Server server = Server.shared();
    private static Browser browser;

    @BeforeAll
    static void startBrowser() {
        browser = new Browser(server.origin());
    }

    @AfterAll
    static void stopBrowser() {
        browser.close();
    }

    @Test
    void aRowIsWrittenAnewWhereItStandsAndWhatCameIsSaidAtTheFoot() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "row.txt", "one", false);
        long other = server.file("priya", shelf, "still.txt", "two", false);
        browser.signIn("hedda");
        browser.open("/shelves/" + shelf);
        String row = "#d" + item;
        assertThat(browser.find(row).getText()).doesNotContain("Priya");
        browser.find("#d" + other).click();
        server.checkOut("priya", item);
        browser.await(b -> b.find(row).getText().contains("Priya"));
        assertThat(browser.find(row).getDomAttribute("class")).contains("moved");
        assertThat(browser.find("#d" + other).getDomAttribute("aria-selected"))
                .as("what was chosen stays chosen")
                .isEqualTo("true");
        server.file("priya", shelf, "came.txt", "three", false);
        browser.awaitText("1 document moved or came that is not in this list as it stands.");
        browser.find(".live-news button").click();
        assertThat(browser.find(".live-news").isDisplayed()).isFalse();
    }

    @Test
    void aDocumentsPageSaysWhatHappenedToItAndIsLoadedWhenAsked() {
        long item = server.file("priya", server.shelf(), "page.txt", "one", true);
        browser.signIn("hedda");
        browser.open("/documents/" + item);
        server.checkIn("priya", item, "two", false);
        browser.awaitText("checked in version 2");
        assertThat(browser.find(".live-news").getText()).contains("Priya Malhan");
        browser.find(".live-news a").click();
        browser.await(b -> b.all(".live-news:not([hidden])").isEmpty());
        browser.awaitText("Version 2");
    }
}
