package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** Marks on a sheet, drawn by hand on the real page: a review with redlines, its return, the second round, a phone. */
class RedlineWalkTest extends InBrowser {
    private final Review review = new Review(SERVER);
    private final long item = SERVER.file(
            "priya",
            SERVER.shelf(),
            "drawing",
            "walked " + Server.key() + ".dxf",
            RedlineTest.sheet(2.75).getBytes(StandardCharsets.US_ASCII),
            true);

    /** Where a place of the sheet, in its units, lies in the window. */
    private static int[] at(double x, double y) {
        List<?> place = (List<?>) ((JavascriptExecutor) browser.driver())
                .executeScript(
                        "const s = document.querySelector('.stage svg.drawing');"
                                + "const p = new DOMPoint(arguments[0], -arguments[1]).matrixTransform(s.getScreenCTM());"
                                + "return [Math.round(p.x), Math.round(p.y)]",
                        x,
                        y);
        return new int[] {((Number) place.get(0)).intValue(), ((Number) place.get(1)).intValue()};
    }

    private static void tap(double x, double y) {
        int[] p = at(x, y);
        new Actions(browser.driver()).moveToLocation(p[0], p[1]).click().perform();
    }

    private static void drag(double x1, double y1, double x2, double y2) {
        int[] a = at(x1, y1);
        int[] b = at(x2, y2);
        new Actions(browser.driver())
                .moveToLocation(a[0], a[1])
                .clickAndHold()
                .moveToLocation((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
                .moveToLocation(b[0], b[1])
                .release()
                .perform();
    }

    private static void tool(Tool tool) {
        browser.find("[data-tool='" + tool.code() + "']").click();
    }

    private static WebElement draft(String css) {
        return browser.find("[data-draft] " + css);
    }

    private void finished(int remarks) {
        browser.await(b -> SERVER.bean(RemarkStore.class).of(item).size() == remarks
                && b.all("[data-draft] form").isEmpty()
                && b.all("[data-row]").size() == remarks);
    }

    private void open(int version, long round) {
        browser.open("/documents/" + item + "/versions/" + version + "/sheet?round=" + round);
        browser.await(b -> !b.all("#remarks").isEmpty());
    }

    private Remark latest() {
        List<Remark> all = SERVER.bean(RemarkStore.class).of(item);
        return all.get(all.size() - 1);
    }

    @Test
    void aReviewWithRedlinesItsReturnAndASecondRoundOnAPhone() {
        SERVER.checkIn("priya", item, RedlineTest.sheet(2.5), false);
        long round = review.send("priya", item);
        browser.signIn("hedda");
        open(2, round);
        assertThat(browser.text()).contains("Nothing is marked", "Back to signing");

        // A tap on a hole puts a cloud round it; Enter in the line finishes it.
        tool(Tool.CLOUD);
        tap(122.5, 120);
        browser.await(b -> !b.all("[data-draft] form").isEmpty());
        draft("[name=line]").sendKeys("Larger, for M6", Keys.ENTER);
        finished(1);
        assertThat(latest().mark().anchors()).extracting(a -> a.handle()).containsExactly(0xA2L);
        assertThat(latest().round()).contains(round);
        assertThat(browser.all(".stage [data-remark]")).hasSize(1);

        // Escape drops a draft, and nothing of it is kept.
        drag(40, 200, 80, 230);
        browser.await(b -> !b.all("[data-draft] form").isEmpty());
        draft("[name=line]").sendKeys("no", Keys.ESCAPE);
        browser.await(b -> b.all("[data-draft] form").isEmpty());
        finished(1);

        // Two places and where the words stand: wanted beside measured. Snapped to the hole's centre and the line's
        // end.
        tool(Tool.SIZE);
        tap(120.5, 120.5);
        tap(100.5, 100.5);
        tap(80, 140);
        draft("[name=text]").sendKeys("30");
        draft(".btn-mint").click();
        finished(2);
        assertThat(latest().says()).isEqualTo("30 wanted, 28.284 measured");

        // Ink in three strokes, the last one taken back; what is picked only is texts.
        tool(Tool.INK);
        drag(200, 150, 240, 160);
        drag(240, 160, 220, 190);
        drag(220, 190, 210, 150);
        browser.find("[data-undo]").click();
        draft("[name=line]").sendKeys("scratch here", Keys.ENTER);
        finished(3);
        assertThat(latest().mark().strokes()).hasSize(2);
        browser.find(".pick-only summary").click();
        browser.find("#mark-texts").click();
        tool(Tool.HIGHLIGHT);
        tap(305, 62);
        browser.await(b -> !b.all("[data-draft] form").isEmpty());
        draft("[name=line]").sendKeys("after which standard?");
        browser.find("[data-draft] input[value=question] + span").click();
        draft(".btn-mint").click();
        finished(4);
        assertThat(latest().kind()).isEqualTo(Remark.Kind.QUESTION);
        assertThat(latest().mark().anchors()).extracting(a -> a.handle()).containsExactly(0xA4L);
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();

        // One look from now on; a set is hidden and shown.
        browser.find(".look-of-marks summary").click();
        browser.find("[data-ink=teal]").click();
        browser.press("From now on");
        browser.awaitText("from now on");
        browser.find("[data-hide-set]").click();
        browser.await(b -> b.all("[data-row]").stream().noneMatch(WebElement::isDisplayed));
        browser.find("[data-hide-set]").click();
        browser.await(b -> b.all("[data-row]").stream().allMatch(WebElement::isDisplayed));

        // Back to signing, returned with what was marked and no word more.
        browser.press("Back to signing");
        browser.awaitText("Cite, with remarks");
        assertThat(browser.all("[name=cite]:checked")).hasSize(4);
        browser.find("button[value=returned]").click();
        browser.awaitText("Returned.");
        assertThat(SERVER.document(item).pending().orElseThrow().stage().stageClass())
                .isEqualTo(StageClass.PREPARING);

        secondRound();
    }

    private void secondRound() {
        SERVER.checkOut("priya", item);
        SERVER.checkIn("priya", item, RedlineTest.sheet(3.3), false);
        browser.signIn("priya");
        browser.open("/documents/" + item);
        assertThat(browser.text()).contains("Larger, for M6", "4 open remarks");
        browser.press("4 open remarks");
        browser.await(b -> b.all("[data-row]").size() == 4);
        assertThat(browser.text()).contains("moved with ⌀ 5.0 → ⌀ 6.6", "on version 2");
        WebElement row = browser.all("[data-row]").stream()
                .filter(r -> r.getText().contains("Larger"))
                .findFirst()
                .orElseThrow();
        row.findElement(By.cssSelector("[data-pick-remark]")).click();
        browser.awaitText("Set done");
        browser.find(".remark-thread:not([hidden]) [name=says]").sendKeys("It is 6.6 now.", Keys.ENTER);
        browser.awaitText("answered");
        browser.awaitText("It is 6.6 now.");
        // The panel is read again after each act: what was found in the one before is gone then.
        browser.driver().executeScript("document.querySelector('[data-many]').dataset.before = 'yes'");
        browser.press("Set done");
        browser.await(b ->
                SERVER.bean(RemarkStore.class).open(List.of(item)).get(item).size() == 3);
        browser.await(b -> b.all("[data-many]:not([data-before])").size() == 1);
        // The rest at once, by their state.
        browser.await(b -> {
            b.find(".remark-states [data-state=open]").click();
            return true;
        });
        browser.awaitText("These 3:");
        browser.find("[data-many] [name=why]").sendKeys("as wanted");
        browser.find("[data-many] [value=done]").click();
        browser.await(b -> !SERVER.bean(RemarkStore.class).open(List.of(item)).containsKey(item));

        long round = review.send("priya", item);
        browser.size(390, 844);
        try {
            browser.signIn("hedda");
            open(3, round);
            tool(Tool.INK);
            drag(110, 130, 130, 112);
            browser.await(b -> !b.all("[data-draft] form").isEmpty());
            assertThat(draft(".btn-mint").getSize().getHeight()).isGreaterThanOrEqualTo(44);
            draft("[name=line]").sendKeys("by thumb");
            draft(".btn-mint").click();
            finished(5);
            browser.press("Back to signing");
            browser.awaitText("by thumb");
            browser.find("button[value=remarked]").click();
            browser.awaitText("Recorded.");
        } finally {
            browser.size(1280, 800);
        }
        assertThat(review.store().round(round).orElseThrow().isOpen()).isTrue();
    }
}
