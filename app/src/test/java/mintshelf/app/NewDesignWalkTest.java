package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import mintshelf.app.sight.Numbered;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** Walk 10: a new design from this one, with new numbers. */
class NewDesignWalkTest extends InBrowser {
    private final long shelf = SERVER.shelf();
    private final String mark = Server.key().substring(0, 6);
    private final String from = "Q" + mark + "-";
    private final String to = "R" + mark + "-";

    private long model(int number, Object... filesAndCounts) {
        return SERVER.file(
                "priya",
                shelf,
                "part-model",
                file(number),
                from + number,
                StructureTest.assembly(from + number, filesAndCounts),
                false);
    }

    private String file(int number) {
        return (from + number).toLowerCase(Locale.ROOT) + ".stp";
    }

    private static void type(long item, String number) {
        WebElement cell = browser.find("#n" + item);
        cell.sendKeys(Keys.chord(Keys.CONTROL, "a"), number.isEmpty() ? Keys.DELETE : number, Keys.TAB);
    }

    @Test
    void theNumberCellsSayWhatBecomesOfEachAndOneButtonMakesIt() {
        long lid = model(1010);
        long nut = model(1020);
        long bolt = model(1030);
        long head = model(1000, file(1010), 1, file(1020), 4, file(1030), 2);
        browser.signIn("priya");
        browser.open("/documents/" + head);
        browser.press("More for " + from + "1000");
        browser.press("New design from this…");
        browser.awaitText("Nothing yet");
        assertThat(browser.find(".foot-bar .btn-mint").isEnabled()).isFalse();
        browser.find("#from").clear();
        browser.find("#from").sendKeys(from + "####");
        browser.find("#to").sendKeys(to + "####", Keys.TAB);
        browser.awaitText("Make 4 documents");
        assertThat(browser.find("#n" + lid).getAttribute("value")).isEqualTo(to + "1010");
        type(nut, "");
        browser.awaitText("is left out");
        type(bolt, from + "1030");
        browser.awaitText("is shared");
        type(lid, "a|b");
        browser.awaitText("In the way 1");
        assertThat(browser.find(".foot-bar .btn-mint").isEnabled()).isFalse();
        type(lid, to + "LID");
        browser.awaitText("new, typed");
        browser.find("#wordsFrom1").sendKeys(SERVER.document(head).title());
        browser.find("#wordsTo1").sendKeys("Short head", Keys.TAB);
        browser.awaitText("Short head");
        // What was typed before stands after all that.
        assertThat(browser.find("#n" + nut).getAttribute("value")).isEmpty();
        browser.press("Make 2 documents");
        browser.awaitText("2 of 2");
        assertThat(browser.text()).contains(to + "1000", to + "LID", "made");
        browser.press(to + "1000");
        browser.awaitText("derived from");
        assertThat(browser.text())
                .contains("Short head", to + "LID", from + "1030")
                .doesNotContain(from + "1020");
        assertThat(SERVER.bean(Numbered.class).all(SERVER.actor("priya"), to + "1000"))
                .hasSize(1);
        assertThat(List.of(lid, nut, bolt, head))
                .allSatisfy(i -> assertThat(SERVER.document(i).head().number()).isEqualTo(1));
    }
}
