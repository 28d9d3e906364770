package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.database.PrivateMariaDb;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.TimeoutException;
import org.openqa.selenium.WebElement;

/** The desk in the browser, on the origin-private file system; only the choice of the folder is a stand-in. */
class DeskWalksTest extends InBrowser {

    private final String mark = Server.key().substring(0, 8);
    private final String me = "sigrid-" + mark;
    private final long shelf = SERVER.shelf();
    private OriginFolder folder;
    private final String place = SERVER.shelfName(shelf) + "/";

    @BeforeEach
    void chooseAFolder() {
        folder = new OriginFolder(browser, mark);
        // Somebody who holds nothing yet: what they hold would belong to the desk.
        SERVER.add(me, "Sigrid Moen", "designer");
        browser.signIn(me);
        folder.choose();
    }

    private long file(String name) {
        return SERVER.file("priya", shelf, name + " " + mark + ".txt", "first " + name + mark, false);
    }

    private String path(String name) {
        return place + name + " " + mark + ".txt";
    }

    private void write(String path, String text) {
        folder.write(path, text);
    }

    private String read(String path) {
        return folder.read(path);
    }

    private void remove(String path) {
        folder.remove(path);
    }

    private void bring(long... items) {
        folder.bring(items);
    }

    private void open() {
        browser.open("/desk");
        browser.awaitText("Read at");
    }

    private String word(String name) {
        List<?> rows = browser.all("[data-sections] [data-line='" + path(name) + "'] .desk-word");
        return rows.isEmpty() ? "not shown" : ((WebElement) rows.get(0)).getText();
    }

    private void press(String name, String text) {
        String row = "[data-line='" + path(name) + "'] ";
        browser.await(b -> b.all(row + "button, " + row + "a, " + row + "summary").stream()
                .filter(e -> e.getText().contains(text))
                .findFirst()
                .map(e -> {
                    e.click();
                    return true;
                })
                .orElse(false));
    }

    private String latest(long item) {
        return new String(SERVER.bytes(item), StandardCharsets.UTF_8);
    }

    @Test
    void theDeskTellsHowEachFileStandsAndIsBroughtUpToDate() {
        long shaft = file("shaft");
        long pulley = file("pulley");
        long housing = file("housing");
        long lid = file("lid");
        long seal = file("seal");
        bring(shaft, pulley, housing, lid, seal);
        assertThat(read(path("shaft"))).isEqualTo("first shaft" + mark);

        SERVER.checkOut(me, shaft);
        write(path("shaft"), "longer shaft" + mark);
        SERVER.checkOut("tomasz", pulley);
        SERVER.checkIn("tomasz", pulley, "wider pulley" + mark, false);
        write(path("housing"), "thinner housing" + mark);
        remove(path("lid"));
        write(path("gasket"), "a gasket" + mark);
        open();
        assertThat(word("shaft")).isEqualTo("ahead");
        assertThat(word("pulley")).isEqualTo("behind");
        assertThat(word("housing")).isEqualTo("strayed");
        assertThat(word("lid")).isEqualTo("absent");
        assertThat(word("gasket")).isEqualTo("new");
        browser.press("Show it");
        assertThat(word("seal")).isEqualTo("even");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();

        browser.press("Bring the desk up to date (2)");
        browser.await(b -> word("pulley").equals("even") && word("lid").equals("even"));
        assertThat(read(path("pulley"))).isEqualTo("wider pulley" + mark);
        assertThat(read(path("lid"))).isEqualTo("first lid" + mark);
        assertThat(read(path("shaft"))).isEqualTo("longer shaft" + mark);

        press("shaft", "Check in…");
        browser.awaitText("from your desk");
        browser.find("#comment").sendKeys("2 longer");
        browser.find("#clear").click();
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        browser.awaitText("1 file was cleared off your desk.");
        assertThat(latest(shaft)).isEqualTo("longer shaft" + mark);
        assertThat(read(path("shaft"))).startsWith("failed: NotFoundError");

        open();
        press("housing", "Take it now…");
        browser.awaitText("from your desk");
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        assertThat(latest(housing)).isEqualTo("thinner housing" + mark);
        open();
        assertThat(browser.text()).contains("4 even");

        press("gasket", "File it…");
        browser.awaitText("Filing sheet");
        assertThat(browser.text()).contains("gasket " + mark + ".txt");
    }

    @Test
    void whatIsInNoVersionIsNeverOverwritten() {
        long clamp = file("clamp");
        long bracket = file("bracket");
        bring(clamp, bracket);
        write(path("clamp"), "my clamp" + mark);
        write(path("bracket"), "my bracket" + mark);
        SERVER.checkOut("tomasz", clamp);
        SERVER.checkIn("tomasz", clamp, "his clamp" + mark, false);
        SERVER.checkOut("tomasz", bracket);
        open();
        assertThat(word("clamp")).isEqualTo("strayed");
        assertThat(browser.find("[data-line='" + path("bracket") + "']").getText())
                .contains("Ask Tomasz for it");
        press("bracket", "Ask Tomasz for it");
        browser.awaitText("was asked for");

        press("clamp", "More");
        press("clamp", "Replace with the shelf's");
        browser.awaitText("yours is kept as a stray");
        assertThat(read(path("clamp"))).isEqualTo("his clamp" + mark);
        StrayStore.Stray stray = SERVER.bean(StrayStore.class).kept(clamp).get(0);
        assertThat(SERVER.bytes(stray.content())).asString().isEqualTo("my clamp" + mark);

        press("bracket", "More");
        press("bracket", "Set mine aside");
        browser.awaitText("Yours lies beside it as");
        assertThat(read(path("bracket"))).isEqualTo("first bracket" + mark);
        assertThat(read(place + "bracket " + mark + " (mine).txt")).isEqualTo("my bracket" + mark);

        browser.open("/strays/" + stray.id());
        browser.press("File it as a new document derived from");
        browser.awaitText("Filed as derived from");
    }

    @Test
    void anActOnWhatChangedMeanwhileIsNotDone() {
        long rail = file("rail");
        bring(rail);
        SERVER.checkOut("tomasz", rail);
        SERVER.checkIn("tomasz", rail, "his rail" + mark, false);
        open();
        assertThat(word("rail")).isEqualTo("behind");
        // A change that the page has not seen yet, where no observer tells it.
        browser.driver().executeScript("document.querySelector('[data-page=desk]').classList.add('at-work')");
        write(path("rail"), "my rail" + mark);
        browser.driver()
                .executeScript("document.querySelector('[data-page=desk]').classList.remove('at-work');"
                        + "document.querySelector(\"[data-line='" + path("rail") + "'] button\").click()");
        browser.awaitText("Nothing was done; look again.");
        assertThat(read(path("rail"))).isEqualTo("my rail" + mark);
        browser.await(b -> word("rail").equals("strayed"));
    }

    @Test
    void aBrowserThatTakesItsLeaveBackIsAskedAnewAndNothingIsLost() {
        long cap = file("cap");
        bring(cap);
        browser.driver().executeScript("""
                        FileSystemHandle.prototype.queryPermission = async () => window.granted ? "granted" : "prompt";
                        FileSystemHandle.prototype.requestPermission = async () => { window.granted = true; return "granted"; };
                        """);
        browser.press("Read again");
        browser.awaitText("May this page work in the folder?");
        browser.press("Allow it");
        browser.await(b -> !b.find("[data-leave]").isDisplayed());
        assertThat(browser.text()).contains("1 file: 1 even");
        assertThat(read(path("cap"))).isEqualTo("first cap" + mark);
    }

    @Test
    void twoTabsDoNotWorkOnOneDeskAtOnce() {
        long pin = file("pin");
        bring(pin);
        remove(path("pin"));
        open();
        // The other one is opened, held and closed from here: a browser that is asked in a window behind may not answer
        // for minutes.
        browser.driver().executeScript("window.other = window.open('/desk', '_blank', 'width=700,height=500')");
        browser.await(b -> Boolean.TRUE.equals(b.driver()
                .executeScript("return window.other.document.readyState === 'complete'"
                        + " && !!window.other.document.body && !!window.other.document.body.dataset.me")));
        browser.driver()
                .executeScript("window.other.navigator.locks.request('mint-desk ' + document.body.dataset.me + ' "
                        + mark + "', () => new Promise((done) => { window.held = true; window.over = done; }))");
        browser.await(b -> Boolean.TRUE.equals(b.driver().executeScript("return window.held === true")));
        browser.press("Bring the desk up to date");
        browser.awaitText("Another tab is at work on this desk.");
        assertThat(read(path("pin"))).startsWith("failed");
        browser.driver().executeScript("window.over(); window.other.close()");
        // The browser gives the lock of a closed tab back in its own time: one press, a look, another press.
        for (int turn = 0; turn < 20 && !browser.text().contains("1 even"); turn++) {
            // Once it is done there is nothing to press any more.
            browser.pressIfThere("Bring the desk up to date");
            for (int look = 0; look < 20 && !browser.text().contains("1 even"); look++) pause();
        }
        browser.awaitText("1 even");
        assertThat(read(path("pin"))).isEqualTo("first pin" + mark);
    }

    @Test
    void theNextRevisionBeginsWithWhatWasChangedOnTheDesk() {
        long plate = SERVER.released(shelf, "plate " + mark + ".txt");
        bring(plate);
        write(path("plate"), "bored plate" + mark);
        open();
        press("plate", "Start the next revision with it…");
        browser.awaitText("It begins with plate");
        browser.find("#reason").sendKeys("bigger bore");
        browser.press("Start the revision");
        browser.awaitText("new version 2");
        assertThat(latest(plate)).isEqualTo("bored plate" + mark);
        assertThat(SERVER.document(plate).pending().orElseThrow().shown()).isEqualTo("B");
        open();
        assertThat(browser.text()).contains("1 even");
    }

    @Test
    void aCheckOutLiesDownOnTheDeskByItself() {
        long bolt = file("bolt");
        browser.open("/documents/" + bolt);
        browser.press("Work on it");
        browser.awaitText("It lies on your desk");
        assertThat(read(path("bolt"))).isEqualTo("first bolt" + mark);
    }

    @Test
    void manyNewFilesAreFiledInPortionsThatASheetTakes() {
        folder.fill(place, "spare " + mark, 203);
        open();
        assertThat(browser.find("[data-section=new] h2").getText()).isEqualTo("New 203");
        browser.press("File the first 200 of " + place.substring(0, place.length() - 1) + "…");
        browser.awaitText("Sending");
        for (int turn = 0; turn < 3 && !browser.text().contains("Filing sheet"); turn++) {
            try {
                browser.awaitText("Filing sheet"); // two hundred files are on their way
            } catch (TimeoutException e) {
                assertThat(turn).as(browser.text()).isLessThan(2);
            }
        }
        assertThat(browser.text()).contains("Filing sheet").contains("200");
    }

    @Test
    void aFileThatIsWrittenToWhileItIsSentIsNotTakenAndComesOnceMore() {
        long axle = file("axle");
        bring(axle);
        SERVER.checkOut(me, axle);
        write(path("axle"), "first thought" + mark);
        // The program saves once more just when the bytes leave.
        browser.driver().executeCdpCommand("Page.addScriptToEvaluateOnNewDocument", Map.of("source", """
                (() => {
                  const real = window.fetch;
                  window.fetch = async (url, options) => {
                    const path = localStorage.savesAgain;
                    if (path && options?.method === "PUT" && String(url).startsWith("/uploads/")) {
                      delete localStorage.savesAgain;
                      const [root, ...segments] = path.split("/");
                      let at = await (await navigator.storage.getDirectory()).getDirectoryHandle(root);
                      const name = segments.pop();
                      for (const s of segments) at = await at.getDirectoryHandle(s);
                      const out = await (await at.getFileHandle(name)).createWritable();
                      await out.write("second thought, and longer");
                      await out.close();
                    }
                    return real(url, options);
                  };
                })();
                """));
        browser.driver().executeScript("localStorage.savesAgain = arguments[0]", mark + "/" + path("axle"));
        open();
        press("axle", "Check in…");
        browser.awaitText("was changed or moved while it was sent");
        assertThat(browser.find("[data-check-in]").isEnabled()).isFalse();
        assertThat(latest(axle)).isEqualTo("first axle" + mark);

        open();
        press("axle", "Check in…");
        browser.awaitText("from your desk");
        browser.press("Check in 1 document");
        browser.awaitText("new version 2");
        assertThat(latest(axle)).isEqualTo("second thought, and longer");
    }

    @Test
    void hashesAreToldByContentThoughTheClockOfTheMachineIsWrong() {
        long key = file("key");
        bring(key);
        // A machine whose clock went back: what is saved now is older than what was brought.
        browser.driver().executeScript("""
                const real = Object.getOwnPropertyDescriptor(File.prototype, "lastModified").get;
                Object.defineProperty(File.prototype, "lastModified", { get() { return real.call(this) - 86400000 * 3650; } });
                """);
        SERVER.checkOut(me, key);
        write(path("key"), "shorter key" + mark);
        browser.press("Read again");
        browser.await(b -> word("key").equals("ahead"));
        open();
        assertThat(word("key")).isEqualTo("ahead");
        write(path("key"), "first key" + mark);
        browser.press("Read again");
        browser.await(b -> !word("key").equals("ahead"));
        assertThat(browser.text()).contains("1 even");
    }

    /** The picker cannot be driven; what is dropped on the page is as real a folder. */
    private void chooseRealFolder(Path real) {
        browser.driver()
                .executeCdpCommand(
                        "Page.addScriptToEvaluateOnNewDocument",
                        Map.of(
                                "source",
                                "window.showDirectoryPicker = () => new Promise((done) => { window.choosing = true;"
                                        + " addEventListener('dragover', (e) => e.preventDefault());"
                                        + " addEventListener('drop', (e) => { e.preventDefault(); e.stopPropagation();"
                                        + " done(e.dataTransfer.items[0].getAsFileSystemHandle()); }, true); });"));
        browser.open("/desk");
        browser.driver()
                .executeScript("document.querySelectorAll('[data-choose-folder]').forEach((b, i) => i || b.click())");
        browser.await(b -> Boolean.TRUE.equals(b.driver().executeScript("return window.choosing === true")));
        // A drop that comes while the page is laid out anew is lost: it is dropped again.
        for (int turn = 0;
                turn < 4 && !browser.text().contains(real.getFileName().toString());
                turn++) {
            for (String step : List.of("dragEnter", "dragOver", "drop")) {
                Map<String, Object> dragged =
                        Map.of("items", List.of(), "files", List.of(real.toString()), "dragOperationsMask", 1);
                browser.driver()
                        .executeCdpCommand(
                                "Input.dispatchDragEvent", Map.of("type", step, "x", 400, "y", 300, "data", dragged));
            }
            for (int i = 0;
                    i < 50 && !browser.text().contains(real.getFileName().toString());
                    i++) pause();
        }
        browser.awaitText(real.getFileName().toString());
        browser.awaitText("Read at");
    }

    private static void pause() {
        try {
            Thread.sleep(100);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void theRoundTripOnAFolderOfTheDisk() throws IOException {
        long rod = file("rod");
        long cam = file("cam");
        Path real = Files.createTempDirectory("desk-" + mark);
        try {
            chooseRealFolder(real);
            bring(rod, cam);
            Path mine = real.resolve(path("rod"));
            assertThat(mine).hasContent("first rod" + mark);
            assertThat(real.resolve(path("cam"))).hasContent("first cam" + mark);
            SERVER.checkOut(me, rod);
            Files.writeString(mine, "longer rod" + mark);
            Files.writeString(mine.resolveSibling("lever " + mark + ".txt"), "a lever");
            open();
            assertThat(word("rod")).isEqualTo("ahead");
            assertThat(word("lever")).isEqualTo("new");
            SERVER.checkOut("tomasz", cam);
            SERVER.checkIn("tomasz", cam, "his cam" + mark, false);
            open();
            press("cam", "Bring v2");
            browser.await(b -> word("cam").equals("even") || word("cam").equals("not shown"));
            assertThat(real.resolve(path("cam"))).hasContent("his cam" + mark);

            press("rod", "Check in…");
            browser.awaitText("from your desk");
            browser.find("#clear").click();
            browser.press("Check in 1 document");
            browser.awaitText("new version 2");
            browser.awaitText("1 file was cleared off your desk.");
            assertThat(latest(rod)).isEqualTo("longer rod" + mark);
            assertThat(mine).doesNotExist();
            assertThat(mine.resolveSibling("lever " + mark + ".txt")).hasContent("a lever");
        } finally {
            PrivateMariaDb.deleteTree(real);
        }
    }
}
