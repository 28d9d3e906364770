package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import mintshelf.app.use.trial.StartTrial;
import org.junit.jupiter.api.Test;

/** A trial on the desk of a browser: brought from its page, changed, checked in on its own line, and left for the main one again. */
class DeskTrialWalkTest extends InBrowser {
    private final String mark = Server.key().substring(0, 8);
    private final String me = "sigrid-" + mark;

    @Test
    void aTrialIsBroughtChangedAndCheckedInFromTheDesk() {
        OriginFolder folder = new OriginFolder(browser, mark);
        SERVER.add(me, "Sigrid Moen", "designer");
        browser.signIn(me);
        folder.choose();
        long shelf = SERVER.shelf();
        long item = SERVER.file("priya", shelf, "wall " + mark + ".txt", "as it was " + mark, false);
        String path = SERVER.shelfName(shelf) + "/wall " + mark + ".txt";
        String trial =
                SERVER.bean(StartTrial.class).start(SERVER.actor("priya"), List.of(item), "Thinner wall", Server.key());

        browser.open(trial);
        browser.press("Check out");
        browser.awaitText("You hold it now, on the trial.");
        browser.press("Bring to my desk…");
        browser.awaitText("t1 to my desk");
        browser.press("Bring 1 file");
        browser.awaitText("on the desk now");
        assertThat(folder.read(path)).isEqualTo("as it was " + mark);

        folder.write(path, "thinner " + mark);
        browser.open("/desk");
        browser.awaitText("Read at");
        String row = "[data-line='" + path + "']";
        assertThat(browser.find(row).getText()).contains("ahead", " t1", "Check in…");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
        browser.find(row + " .desk-acts > a").click();
        browser.awaitText("from your desk");
        browser.press("Check in 1 document");
        browser.awaitText("new version t1/1");
        assertThat(SERVER.bytes(item))
                .as("nothing of the document moved")
                .asString()
                .isEqualTo("as it was " + mark);

        // The main line goes on; the desk stands to the trial, and goes back where it is told to.
        SERVER.checkOut("priya", item);
        SERVER.checkIn("priya", item, "main went on " + mark, false);
        browser.open("/desk");
        browser.awaitText("1 even");
        browser.press("Show it");
        assertThat(browser.find(row).getText()).contains("even", "t1/1");
        browser.open("/desk?bring=" + item);
        browser.press("Bring 1 file");
        browser.awaitText("on the desk now");
        assertThat(folder.read(path)).isEqualTo("main went on " + mark);
        browser.open("/desk");
        browser.awaitText("1 even");
        browser.press("Show it");
        assertThat(browser.find(row).getText()).contains("v2").doesNotContain("t1");
    }
}
