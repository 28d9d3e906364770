package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.redline.Picked;
import mintshelf.core.redline.Remark;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Rectangle;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;

/** Marks on a page of a PDF and on a model, drawn by hand on the real pages. */
class MarkedPapersWalkTest extends InBrowser {
    /** A cube of 40 mm, as triangles. */
    private static byte[] cube() {
        int[][] corners = {
            {0, 0, 0}, {40, 0, 0}, {40, 40, 0}, {0, 40, 0}, {0, 0, 40}, {40, 0, 40}, {40, 40, 40}, {0, 40, 40}
        };
        int[][] faces = {{0, 3, 2, 1}, {4, 5, 6, 7}, {0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}};
        StringBuilder stl = new StringBuilder("solid cube\n");
        for (int[] f : faces) {
            for (int[] t : new int[][] {{f[0], f[1], f[2]}, {f[0], f[2], f[3]}}) {
                stl.append("facet normal 0 0 0\nouter loop\n");
                for (int c : t) {
                    stl.append("vertex ")
                            .append(corners[c][0])
                            .append(' ')
                            .append(corners[c][1])
                            .append(' ')
                            .append(corners[c][2])
                            .append('\n');
                }
                stl.append("endloop\nendfacet\n");
            }
        }
        return stl.append("endsolid ")
                .append(Server.key())
                .append('\n')
                .toString()
                .getBytes(StandardCharsets.US_ASCII);
    }

    private static void click(double x, double y) {
        Rectangle stage = browser.find("[data-stage]").getRect();
        new Actions(browser.driver())
                .moveToLocation(stage.x + (int) (stage.width * x), stage.y + (int) (stage.height * y))
                .click()
                .perform();
    }

    private static void finish(String line) {
        browser.await(b -> !b.all("[data-draft] form").isEmpty());
        browser.find("[data-draft] [name=line]").sendKeys(line);
        browser.find("[data-draft] .btn-mint").click();
        browser.await(b -> b.all("[data-draft] form").isEmpty());
    }

    private static Remark last(long item) {
        var all = SERVER.bean(RemarkStore.class).of(item);
        return all.get(all.size() - 1);
    }

    @Test
    void aModelIsMarkedWithItsViewWhichComesBack() {
        long item = SERVER.file("priya", SERVER.shelf(), Server.PLAIN, "cube " + Server.key() + ".stl", cube(), true);
        browser.signIn("hedda");
        browser.open("/documents/" + item + "/versions/1/model");
        browser.await(b -> "true".equals(b.find("[data-page=model]").getDomAttribute("data-ready")));
        browser.awaitText("Nothing is marked.");
        browser.find("[data-tools] [data-tool='arrow-note']").click();
        click(0.02, 0.5);
        browser.awaitText("Point at the model.");
        click(0.5, 0.5);
        click(0.85, 0.2);
        finish("no powder here");
        browser.awaitText("no powder here");
        Remark first = last(item);
        assertThat(first.mark().space().orElseThrow().picks())
                .singleElement()
                .satisfies(p -> assertThat(p.of()).isEqualTo(Picked.Of.FACE));
        String text = ".model-marks [data-remark='" + first.id() + "'] text";
        browser.await(b -> b.all(text).size() == 1);
        String seen = place(text);
        browser.find("[data-view=front]").click();
        browser.await(b -> !place(text).equals(seen));
        WebElement row = browser.find("[data-row='" + first.id() + "'] [data-pick-remark]");
        row.click();
        if (!"true".equals(row.getDomAttribute("aria-expanded"))) row.click();
        browser.await(b -> place(text).equals(seen));

        // A size between two faces of a cube, taken back by one step and made anew.
        browser.find("[data-tools] [data-tool='arrow-note']").click();
        browser.find("[data-tools] [data-tool='size']").click();
        click(0.5, 0.35);
        click(0.5, 0.35);
        browser.find("[data-undo]").click();
        assertThat(browser.find("[data-redo]").isEnabled()).isTrue();
        browser.find("[data-redo]").click();
        click(0.8, 0.7);
        browser.awaitText("0 measured");
        finish("flat enough?");
        assertThat(last(item).says()).isEqualTo("0 measured: flat enough?");
        assertThat(last(item).number()).isEqualTo("R-2");
    }

    private static String place(String selector) {
        return String.valueOf(((JavascriptExecutor) browser.driver())
                .executeScript(
                        "const t = document.querySelector(arguments[0]); return t ? Math.round(t.getAttribute('x')) + ' ' + Math.round(t.getAttribute('y')) : ''",
                        selector));
    }

    @Test
    void aPageOfAPdfIsMarkedOnAPhoneAndTheOthersSayWhereMarksAre() {
        long item = SERVER.file(
                "priya",
                SERVER.shelf(),
                "specification",
                "sheet " + Server.key() + ".pdf",
                MarkedPapersTest.pdf(3),
                true);
        browser.signIn("hedda");
        browser.size(390, 844);
        try {
            browser.open("/documents/" + item + "/versions/1/sheet?layout=Page%202");
            browser.awaitText("0 remarks");
            browser.find("[data-tools] [data-tool='note']").click();
            click(0.5, 0.4);
            finish("which edition?");
            browser.await(b -> !b.all("svg.over [data-remark]").isEmpty());
            assertThat(last(item).layout()).isEqualTo("Page 2");
        } finally {
            browser.size(1280, 900);
        }
        browser.open("/documents/" + item + "/versions/1/sheet");
        browser.awaitText("1 open on Page 2");
        browser.driver().findElement(By.linkText("1 open on Page 2")).click();
        browser.awaitText("which edition?");
        assertThat(browser.driver().getCurrentUrl()).contains("layout=Page+2");
    }
}
