package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.core.Dxf;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** What changed on a sheet, from the file that is brought to the list that a reviewer ticks off. */
@Tag("browser")
class CompareTest {
    private static final Server SERVER = Server.shared();
    private static Browser browser;

    @TempDir
    Path folder;

    @BeforeAll
    static void start() {
        browser = new Browser(SERVER.origin());
    }

    @AfterAll
    static void stop() {
        browser.close();
    }

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
                .contains("Ø 5.5 → Ø 6.6")
                .contains("without a cloud");
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        browser.find("a[href*=compare]").click();
        browser.await(b -> b.path().contains("/versions/2/compare"));
        assertThat(browser.all(".differences .words")).hasSize(1);
        assertThat(browser.find(".differences .words").getText()).startsWith("Ø 5.5 → Ø 6.6");
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
        assertThat(new AxeBuilder()
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
        Object taps = browser.driver().executeScript("""
                const [svg, stage] = [document.querySelector('[data-stage] > svg'), document.querySelector('[data-stage]')];
                for (const [x, y] of [[87.75, 235], [289, 235]]) {
                  const p = new DOMPoint(x, -y).matrixTransform(svg.getScreenCTM());
                  const at = { clientX: p.x + 1, clientY: p.y + 1, bubbles: true, pointerId: 1, isPrimary: true };
                  stage.dispatchEvent(new PointerEvent('pointermove', at));
                  stage.setPointerCapture = () => {};
                  stage.dispatchEvent(new PointerEvent('pointerdown', at));
                  stage.dispatchEvent(new PointerEvent('pointerup', at));
                }
                return [...document.querySelectorAll('[data-measured] li')].map((li) => li.textContent).join('|');
                """);
        assertThat(taps.toString())
                .contains("Ø 5.5, R 2.75")
                .contains("Ø 8, R 4")
                .contains("200 · across 200 · up 0 · 0° between centres");
        browser.find("[data-stage]").sendKeys(Keys.ESCAPE);
    }

    @Test
    void whatWasSignedForTheReleasedRevisionIsComparedWithNotWhatTheShelfWroteIntoIt() {
        Review review = new Review(SERVER);
        long item = review.drawing(SERVER.shelf(), "signed.dxf");
        review.release(item);
        SERVER.bean(mintshelf.app.use.revision.Revisions.class)
                .start(SERVER.actor("priya"), java.util.List.of(item), Server.key(), "holes", "", true);
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
