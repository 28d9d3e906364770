package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.TakeInRemarks;
import mintshelf.app.use.today.ReadToday;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Tool;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** Somebody outside answers on the page that they were given, without a server, and what they wrote is taken in. */
class OutsiderWalkTest extends InBrowser {
    private final long item = SERVER.file(
            "priya",
            SERVER.shelf(),
            "drawing",
            "given " + Server.key() + ".dxf",
            RedlineTest.sheet(2.75).getBytes(StandardCharsets.US_ASCII),
            true);

    private static void dialog(String id, String... fields) {
        browser.await(b -> b.find("#" + id).isDisplayed());
        for (int i = 0; i < fields.length; i += 2) browser.find(fields[i]).sendKeys(fields[i + 1]);
        browser.find("#" + id + " .main").click();
    }

    @Test
    void theyAnswerRemarkAnewSaveAndItJoins() throws Exception {
        SERVER.bean(MakeRemark.class)
                .make(
                        SERVER.actor("hedda"),
                        item,
                        1,
                        Server.key(),
                        RedlineTest.draft(
                                Tool.ARROW_NOTE, "Round this edge", new Point(120, 122), new Point(180, 180)));
        byte[] page = Web.as(SERVER, "priya")
                .bytes("/documents/" + item + "/versions/1/marked.html")
                .body();
        Path file = Files.createTempFile("mint-shelf-outside-", ".html");
        Files.write(file, page);
        browser.driver().get(file.toUri().toString());
        assertThat(browser.text()).contains("Round this edge", "Hedda Lysgaard", "Nothing is sent from here");

        WebElement words = browser.find("article textarea");
        words.sendKeys("Yes, by half a millimetre");
        browser.find("article .main").click();
        dialog("ask", "#name", "Ada Quay", "#mail", "ada@quay.example");
        browser.awaitText("You write as Ada Quay <ada@quay.example>");
        assertThat(browser.text()).contains("Yes, by half a millimetre", "Save what I wrote (1)");

        WebElement sheet = browser.find("#sheet");
        new Actions(browser.driver())
                .moveToElement(sheet, -60, -20)
                .clickAndHold()
                .moveByOffset(40, 20)
                .moveByOffset(30, 20)
                .release()
                .perform();
        dialog("fresh", "#line", "Why so thin here?");
        browser.awaitText("Save what I wrote (2)");
        // Asked once: the name is remembered, and what was written outlives the page.
        browser.find("#save").click();
        String label = SERVER.document(item).number() + " version 1, answers of Ada Quay.json";
        byte[] saved = browser.downloaded(label);
        browser.driver().navigate().refresh();
        browser.awaitText("Why so thin here?");
        assertThat(browser.text()).contains("You write as Ada Quay");
        assertThat(browser.driver().findElements(By.cssSelector("article"))).hasSize(2);

        TakeInRemarks take = SERVER.bean(TakeInRemarks.class);
        assertThat(take.take(SERVER.actor("priya"), item, 1, "", Server.key(), saved))
                .isEqualTo("took in 1 remark, 1 reply");
        assertThat(take.take(SERVER.actor("priya"), item, 1, "", Server.key(), saved))
                .isEqualTo("2 were here already");
        assertThat(SERVER.bean(ReadToday.class).today(SERVER.actor("hedda")).notices())
                .anyMatch(n -> n.says().contains("Ada Quay <ada@quay.example> replied to")
                        && n.says().contains("Yes, by half a millimetre"));
        Files.delete(file);
    }
}
