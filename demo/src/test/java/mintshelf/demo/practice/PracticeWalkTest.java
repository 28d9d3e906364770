package mintshelf.demo.practice;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import mintshelf.app.Browser;
import mintshelf.app.OriginFolder;
import mintshelf.app.Server;
import mintshelf.demo.sheet.DxfWriter;
import mintshelf.demo.sheet.DxfWriter.Layer;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The round trip of a drawing without a drafting program: brought, changed at the practice seat, checked in. */
@Tag("browser")
class PracticeWalkTest {
    private static byte[] plate() {
        DxfWriter dxf = new DxfWriter();
        dxf.box(Layer.OUTLINE, 0, 0, 80, 50);
        dxf.circle(Layer.OUTLINE, 20, 25, 4.5);
        dxf.circle(Layer.OUTLINE, 60, 25, 4.5);
        return dxf.bytes(100, 80);
    }

    /** Picks a place on the sheet, given in drawing units. */
    private static void pick(Browser browser, double x, double y) {
        browser.driver().executeScript("""
                const svg = document.querySelector("[data-sheet] svg");
                const p = new DOMPoint(arguments[0], -arguments[1]).matrixTransform(svg.getScreenCTM());
                const where = { clientX: p.x, clientY: p.y, bubbles: true };
                svg.dispatchEvent(new PointerEvent("pointerdown", where));
                svg.dispatchEvent(new PointerEvent("pointerup", where));
                """, x, y);
    }

    /** Without what a way over text changes: bytes of other encodings. */
    private static String plain(String text) {
        return text.replaceAll("[^ -~\\n]", "");
    }

    @Test
    void aHoleIsChangedOnTheDesksRealFileAndCheckedIn() {
        Server server = Server.with(PracticeSeat.class);
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "drawing", "gland plate.dxf", plate(), true);
        String path = server.shelfName(shelf) + "/gland plate.dxf";
        try (Browser browser = new Browser(server.origin())) {
            browser.signIn("priya");
            OriginFolder folder = new OriginFolder(browser, "practice");
            folder.choose();
            folder.bring(item);
            String before = folder.read(path);
            browser.open("/practice?path=" + URLEncoder.encode(path, StandardCharsets.UTF_8));
            browser.awaitText("as it lies on your desk");
            assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();

            browser.find("#diameter").clear();
            browser.find("#diameter").sendKeys("12");
            pick(browser, 20, 29.5);
            browser.awaitText("The hole of 9 has 12 now.");
            browser.find("#act-plug").click();
            pick(browser, 60, 29.5);
            browser.awaitText("The hole of 9 is plugged.");
            browser.press("Take back");
            browser.awaitText("Taken back.");
            pick(browser, 40, 2);
            browser.awaitText("no circle");
            assertThat(browser.find("[data-log]").getText()).isEqualTo("The hole of 9 has 12 now.");
            assertThat(folder.read(path)).as("not saved yet").isEqualTo(before);
            browser.press("Save to the desk");
            browser.awaitText("Saved to the desk.");
            assertThat(folder.read(path)).isNotEqualTo(before);

            browser.open("/check-in?items=" + item);
            browser.awaitText("from your desk");
            browser.press("Check in 1 document");
            browser.awaitText("new version 2");
            browser.awaitText("1 difference");
            assertThat(plain(new String(server.bytes(item), StandardCharsets.UTF_8)))
                    .isEqualTo(plain(folder.read(path)));

            // What something else wrote meanwhile is not written over.
            browser.open("/practice?path=" + URLEncoder.encode(path, StandardCharsets.UTF_8));
            browser.awaitText("as it lies on your desk");
            browser.find("#act-plug").click();
            pick(browser, 60, 29.5);
            browser.awaitText("The hole of 9 is plugged.");
            folder.write(path, "a program saved this meanwhile");
            browser.press("Save to the desk");
            browser.awaitText("was changed by something else");
            assertThat(folder.read(path)).isEqualTo("a program saved this meanwhile");
        } finally {
            server.stop();
        }
    }
}
