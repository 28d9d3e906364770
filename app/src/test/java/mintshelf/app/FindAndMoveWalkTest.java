package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.OptionalLong;
import java.util.UUID;
import mintshelf.app.use.shelf.ReadShelf;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.Select;

/** Everything in review on a shelf is found and signed at once; a part moves to another folder, and what names it goes on meaning it. */
class FindAndMoveWalkTest extends InBrowser {
    private final Review review = new Review(SERVER);

    @Test
    void allInReviewOnAShelfIsFoundAndSignedTogether() {
        long shelf = SERVER.shelf();
        for (int i = 0; i < 3; i++) {
            long item = review.drawing(shelf, "FM" + shelf + "-1" + i + " plate.dxf");
            review.send("priya", item);
        }
        // One that is in preparation, and one on another shelf.
        review.drawing(shelf, "FM" + shelf + "-20 plate.dxf");
        review.send("priya", review.drawing(SERVER.shelf(), "FM" + shelf + "-30 plate.dxf"));
        browser.signIn("hedda");
        browser.open("/search?q=" + Web.encode("stage:\"in review\" on:\"" + SERVER.shelfName(shelf) + "\""));
        browser.awaitText("3 hits");
        assertThat(browser.text())
                .contains("in review")
                .doesNotContain("FM" + shelf + "-20")
                .doesNotContain("-30");
        var rows = browser.all(".spine");
        assertThat(rows).hasSize(3);
        Actions picks = new Actions(browser.driver()).keyDown(Keys.CONTROL);
        rows.forEach(row -> picks.click(row.findElement(org.openqa.selenium.By.cssSelector(".c-stage"))));
        picks.keyUp(Keys.CONTROL).perform();
        browser.awaitText("3 selected");
        browser.press("Open the rounds");
        browser.awaitText("Sign all 3");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
        browser.press("Sign all 3");
        browser.awaitText("Done 3 of 3");
    }

    @Test
    void aPartMovesAndItsParentGoesOnMeaningIt() {
        long shelf = SERVER.shelf();
        String mark = UUID.randomUUID().toString().substring(0, 8);
        long part = SERVER.file(
                "priya", shelf, "part-model", "ring" + mark + ".stp", StructureTest.assembly("ring " + mark), false);
        long parent = SERVER.file(
                "priya",
                shelf,
                "part-model",
                "head" + mark + ".stp",
                StructureTest.assembly("head " + mark, "ring" + mark + ".stp", 2),
                false);
        String seals = folder(shelf);
        browser.signIn("priya");
        browser.open("/relocate?items=" + part);
        Select to = new Select(browser.find("#to"));
        to.selectByVisibleText(seals);
        browser.press("Show what it does");
        browser.awaitText("Move 1 document");
        browser.press("Move 1 document");
        browser.awaitText("Done 1 of 1");
        browser.open("/documents/" + parent + "/refers-to");
        assertThat(browser.text()).contains(SERVER.document(part).number());
        browser.open("/documents/" + part + "/where-used");
        assertThat(browser.text()).contains(SERVER.document(parent).number());
        assertThat(SERVER.document(part).head().number()).isEqualTo(1);
    }

    private static String folder(long shelf) {
        String name = "Seals " + UUID.randomUUID().toString().substring(0, 6);
        SERVER.bean(ReadShelf.class).addFolder(SERVER.actor("ines"), shelf, OptionalLong.empty(), name);
        return name;
    }
}
