package mintshelf.app;

import static mintshelf.app.InDesign.plate;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Walk 10: a trial line, worked on beside its document, asked about, and adopted. */
class TrialWalkTest extends InBrowser {
    @TempDir
    Path desk;

    private final long shelf = SERVER.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final String number = "W" + mark + "-10";

    @Test
    void anIdeaIsTriedAskedAboutAndAdopted() throws IOException {
        String name = mark + " lid.dxf";
        long item = SERVER.file("priya", shelf, "drawing", name, number, plate("5", "deburr"), false);
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("More for " + number);
        browser.press("Start a trial…");
        browser.find("#title").sendKeys("Wider hole");
        browser.press("Start the trial");
        browser.awaitText("Nothing was checked in yet; it begins at version 1.");
        browser.press("Check out");
        browser.awaitText("You hold it now, on the trial.");
        browser.press("Check in…");
        Path changed = desk.resolve(name);
        Files.write(changed, plate("8", "deburr"));
        browser.find("[data-row] input[type=file]").sendKeys(changed.toString());
        browser.awaitText("1 difference");
        browser.find("#comment").sendKeys("8 wide");
        browser.press("Check in 1 document");
        browser.awaitText("new version t1/1");
        browser.press("to the trial");
        browser.awaitText("8 wide");
        browser.press("Ask what others think…");
        browser.find("input[name=person][value='" + SERVER.actor("hedda").person() + "']")
                .click();
        browser.press("Ask them");
        browser.awaitText("not answered yet");
        // The document's strip shows it; the document itself is as it was.
        browser.open("/documents/" + item);
        browser.awaitText("Wider hole");
        assertThat(browser.find(".trial-strip .stop").isDisplayed()).isTrue();
        assertThat(SERVER.document(item).head().number()).isEqualTo(1);
        browser.signIn("hedda");
        browser.open("/in-tray");
        browser.awaitText("1 trial to say something about");
        browser.press("t1 of " + number);
        browser.find("input[name=opinion][value=REMARKED]").click();
        browser.press("Say it");
        browser.find("input[name=opinion][value=REMARKED]").click();
        browser.find("textarea[name=words]").sendKeys("8.4 would do as well");
        browser.press("Say it");
        browser.awaitText("Your opinion stands below");
        assertThat(browser.text()).doesNotContain("Adopt…");
        browser.signIn("priya");
        browser.open("/documents/" + item + "/lines/t1");
        browser.awaitText("8.4 would do as well");
        browser.press("Adopt…");
        browser.awaitText("becomes version 2");
        browser.press("Adopt");
        browser.awaitText("adopted as version 2");
        assertThat(Arrays.equals(SERVER.bytes(item), plate("8", "deburr"))).isTrue();
        browser.open("/documents/" + item);
        browser.awaitText("Adopts t1/1, Wider hole");
    }
}
