package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;

/** A designer fills a filing sheet of several files at once. */
class FilingSheetWalkTest extends InBrowser {
    @TempDir
    Path folder;

    private String brought(String name) throws IOException {
        return Files.writeString(folder.resolve(name), name).toString();
    }

    private WebElement field(int row, String name) {
        return browser.all("#filing-rows tbody tr").get(row).findElement(By.cssSelector("[name$='." + name + "']"));
    }

    @Test
    void oneKindIsSetForAllItsFactsComeAtOnceAndAFieldIsFilledDown() throws IOException {
        long shelf = SERVER.shelf();
        browser.signIn("priya");
        browser.open("/shelves/" + shelf);
        browser.find("[data-file-input]")
                .sendKeys(String.join(
                        "\n",
                        brought("a " + shelf + ".txt"),
                        brought("b " + shelf + ".txt"),
                        brought("c " + shelf + ".txt")));
        browser.awaitText("Filing sheet");
        browser.awaitText("File 3 documents");
        assertThat(browser.all("[name$='.fact.material']")).isEmpty();
        new Select(browser.find("[data-set=kind]")).selectByVisibleText("drawing");
        browser.await(b -> b.all("[name$='.fact.material']").size() == 3);
        field(0, "fact.material").sendKeys("316L");
        field(0, "fact.material").sendKeys(Keys.chord(Keys.CONTROL, Keys.ARROW_DOWN));
        assertThat(field(2, "fact.material").getDomProperty("value")).isEqualTo("316L");
        field(1, "included").click();
        browser.awaitText("File 2 documents");
        // What is not ticked is not set.
        browser.find("[data-set=revision]").sendKeys("C" + Keys.TAB);
        assertThat(field(0, "revision").getDomProperty("value")).isEqualTo("C");
        assertThat(field(1, "revision").getDomProperty("value")).isEmpty();
        browser.find("#comment").sendKeys("From the binder");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
        browser.press("File 2 documents");
        browser.awaitText("is version 1");
        assertThat(browser.text()).contains("left out");
    }
}
