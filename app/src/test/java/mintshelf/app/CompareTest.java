package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.Dxf;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** What changed on a sheet, from the file that is brought to the list that a reviewer ticks off. */
class CompareTest extends InBrowser {

    @TempDir
    Path folder;

    /** An A3 sheet with two holes and a text. */
    private static byte[] sheet(String radius, String text) {
        return Dxf.of(
                "\r\n",
                StandardCharsets.ISO_8859_1,
                "0 SECTION",
                "2 ENTITIES",
                "0 LWPOLYLINE",
                "8 FRAME",
                "90 4",
                "70 1",
                "10 0",
                "20 0",
                "10 420",
                "20 0",
                "10 420",
                "20 297",
                "10 0",
                "20 297",
                "0 CIRCLE",
                "8 OUTLINE",
                "10 85",
                "20 235",
                "40 " + radius,
                "0 CIRCLE",
                "8 OUTLINE",
                "10 285",
                "20 235",
                "40 4",
                "0 TEXT",
                "8 TEXT",
                "10 60",
                "20 60",
                "40 3.5",
                "1 " + text,
                "0 ENDSEC",
                "0 EOF");
    }

    private long held(String name) {
        return SERVER.file("priya", SERVER.shelf(), "drawing", name, sheet("2.75", name), true);
    }

    @Test
    void aChangedHoleIsSeenBeforeItIsCheckedInAndListedWithZoneAndSentence() throws IOException {
        long item = held("compared.dxf");
        Path changed = Files.write(folder.resolve("compared.dxf"), sheet("3.3", "compared.dxf"));
        browser.signIn("priya");
        browser.open("/check-in?items=" + item);
        WebElement input = browser.driver().findElement(By.cssSelector("[data-row] input[type=file]"));
        input.sendKeys(changed.toString());
        browser.awaitText("1 difference");
        assertThat(browser.find("[data-brought]").getText())
                .contains("B2")
                .contains("⌀ 5.5 → ⌀ 6.6")
                .contains("without a cloud");
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        browser.find("a[href*=compare]").click();
        browser.await(b -> b.path().contains("/versions/2/compare"));
        assertThat(browser.all(".differences .words")).hasSize(1);
        assertThat(browser.find(".differences .words").getText()).startsWith("⌀ 5.5 → ⌀ 6.6");
        assertThat(browser.all("[data-stage] > svg g.old path")).isNotEmpty();
        assertThat(browser.all("[data-difference=\"1\"] ellipse")).hasSize(1);
        browser.find("[data-stage]").sendKeys("n");
        assertThat(browser.all("li[data-current]")).hasSize(1);
        browser.find("[data-tick]").click();
        assertThat(browser.find("[data-left]").getText()).isEqualTo("All looked at");
        browser.open(browser.path());
        assertThat(browser.find("[data-left]").getText()).isEqualTo("All looked at");
        for (String mode : new String[] {"Side by side", "Swipe", "Blink", "One over the other"}) {
            browser.press(mode);
            assertThat(browser.all("[data-stage]")).hasSize(mode.equals("Side by side") ? 2 : 1);
            assertThat(browser.all(".swipe-handle")).hasSize(mode.equals("Swipe") ? 1 : 0);
        }
        assertThat(Browser.axe()
                        .exclude("svg.drawing")
                        .analyze(browser.driver())
                        .getViolations())
                .extracting(v -> v.getId() + " " + v.getNodes())
                .isEmpty();
    }

    @Test
    void placesArePickedExactlyAndHolesMeasuredBetweenCentres() {
        long item = held("measured.dxf");
        browser.signIn("priya");
        browser.open("/documents/" + item + "/versions/1/sheet");
        browser.press("Measure");
        browser.awaitText("Pick two places");
        browser.find(".measure-bar summary").click();
        browser.find("[data-pick=centre]").click();
        // A tap near each circle's line: what is measured is exact all the same.
        Object taps = tap("[87.75, 235], [289, 235]");
        assertThat(taps.toString())
                .contains("⌀ 5.5, R 2.75")
                .contains("⌀ 8, R 4")
                .contains("200 · across 200 · up 0 · 0° between centres");
        browser.find("[data-stage]").sendKeys(Keys.ESCAPE);
        browser.find("[data-pick=centre]").click();
        browser.find("[data-pick=line]").click();
        assertThat(tap("[420, 100], [100, 0]").toString()).contains("90° between the lines");
    }

    /** Taps near places of the sheet and gives what was measured. */
    private static Object tap(String places) {
        return browser.driver().executeScript("""
                const [svg, stage] = [document.querySelector('[data-stage] > svg'), document.querySelector('[data-stage]')];
                for (const [x, y] of [%s]) {
                  const p = new DOMPoint(x, -y).matrixTransform(svg.getScreenCTM());
                  const at = { clientX: p.x + 1, clientY: p.y + 1, bubbles: true, pointerId: 1, isPrimary: true };
                  stage.dispatchEvent(new PointerEvent('pointermove', at));
                  stage.setPointerCapture = () => {};
                  stage.dispatchEvent(new PointerEvent('pointerdown', at));
                  stage.dispatchEvent(new PointerEvent('pointerup', at));
                }
                return [...document.querySelectorAll('[data-measured] li')].map((li) => li.textContent).join('|');
                """.formatted(places));
    }

    @Test
    void twoVersionsPickedOnTheStripAreComparedAndAnotherDocumentByItsNumber() {
        long item = held("strip.dxf");
        SERVER.checkIn("priya", item, sheet("3", "one"), true);
        SERVER.checkIn("priya", item, sheet("4", "two"), false);
        browser.signIn("priya");
        browser.open("/documents/" + item);
        browser.press("Compare two versions…");
        for (String version : new String[] {"3", "1"}) {
            browser.driver()
                    .executeScript("document.querySelector('.strip a[data-version=\"" + version
                            + "\"]').dispatchEvent(new MouseEvent('click', {bubbles: true, cancelable: true}))");
        }
        assertThat(browser.find("[data-pick-two-go]").getText()).isEqualTo("Compare 1 and 3");
        browser.find("[data-pick-two-go]").click();
        browser.await(b -> b.driver().getCurrentUrl().contains("/versions/3/compare?old=1"));
        long other = held("other strip.dxf");
        browser.find(".other-document summary").click();
        browser.find("#number").sendKeys(SERVER.document(other).number());
        browser.press("Compare with it");
        browser.await(b -> b.driver().getCurrentUrl().contains("with=" + other));
        assertThat(browser.find(".viewer header").getText())
                .contains(SERVER.document(other).number());
    }

    @Test
    void aReaderOfASheetChoosesItsLayout() {
        byte[] two = Dxf.of(
                "\n",
                StandardCharsets.UTF_8,
                ("0 SECTION;2 ENTITIES;0 CIRCLE;8 0;10 5;20 5;40 2;0 LINE;8 0;67 1;10 0;20 0;11 210;21 0;"
                                + "0 LINE;8 0;67 1;10 0;20 0;11 0;21 297;0 TEXT;8 0;67 1;10 20;20 20;40 5;1 on paper;"
                                + "0 ENDSEC;0 EOF")
                        .split(";"));
        long item = SERVER.file("priya", SERVER.shelf(), Server.PLAIN, "layouts.dxf", two, false);
        Web web = Web.as(SERVER, "priya");
        String sheet = "/documents/" + item + "/versions/1/sheet";
        assertThat(web.get(sheet).body()).contains("on paper").contains("Model space");
        assertThat(web.get(sheet + "?layout=Model").body())
                .doesNotContain("on paper")
                .contains("Layout1");
        assertThat(web.get(sheet + "?layout=None").statusCode()).isEqualTo(404);
        assertThat(web.get("/documents/" + item + "/versions/1/geometry?layout=Model")
                        .body())
                .contains("\"arcs\":[5.0,5.0,2.0,");
    }

    @Test
    void whatWasSignedForTheReleasedRevisionIsComparedWithNotWhatTheShelfWroteIntoIt() {
        Review review = new Review(SERVER);
        long item = review.drawing(SERVER.shelf(), "signed.dxf");
        review.release(item);
        SERVER.bean(StartRevisions.class).start(SERVER.actor("priya"), List.of(item), Server.key(), "holes", "", true);
        SERVER.checkIn("priya", item, Review.sheet("third " + System.nanoTime()), false);
        var view = SERVER.bean(ReadDocument.class).view(SERVER.actor("priya"), item);
        var last = view.versions().get(view.versions().size() - 1);
        var before = SERVER.bean(CompareSheets.class).before(item, last).orElseThrow();
        assertThat(before.number()).isEqualTo(2);
        assertThat(SERVER.bean(CompareSheets.class)
                        .compare(before.content(), last.content())
                        .orElseThrow()
                        .isEmpty())
                .isTrue();
    }
}
