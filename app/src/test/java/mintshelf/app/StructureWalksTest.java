package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.use.structure.ReadModel;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.Select;

/** Structures through the real pages: taken along, looked through, put right, seen in space. */
class StructureWalksTest extends InBrowser {

    private final long shelf = SERVER.shelf();
    private final String mark = Server.key().substring(0, 8);

    private long file(String name, byte[] bytes) {
        return SERVER.file("priya", shelf, "part-model", name + " " + mark + ".stp", bytes, false);
    }

    private byte[] assembly(Object... namesAndCounts) {
        Object[] files = namesAndCounts.clone();
        for (int i = 0; i < files.length; i += 2) files[i] = files[i] + " " + mark + ".stp";
        return StructureTest.assembly("a" + mark, files);
    }

    private static byte[] lid() throws IOException {
        try (var in = StructureWalksTest.class.getResourceAsStream("lid.stp")) {
            return in.readAllBytes();
        }
    }

    @Test
    void anAssemblyIsCheckedOutWithSomeOfItsComponentsWhileAColleagueHasOne() throws IOException {
        long housing = file("housing", StructureTest.assembly("h" + mark));
        long lid = file("lid", StructureTest.assembly("l" + mark));
        long head = file("head", assembly("housing", 1, "lid", 1));
        SERVER.checkOut("tomasz", lid);
        browser.signIn("priya");
        browser.open("/documents/" + head);
        browser.press("Check out…");
        browser.awaitText("Check out 1 of 1");
        browser.press("components of the first level");
        browser.awaitText("Check out 1 of 3");
        assertThat(browser.text()).contains("is held by Tomasz Okrent");
        new Select(browser.find("select[name='row." + housing + "']")).selectByValue("HOLD");
        browser.awaitText("2 documents will be held by you, 1 comes as a copy.");
        browser.press("Check out 2 documents");
        browser.awaitText("You hold 2 documents, 1 comes as a copy");
        browser.press("Fetch all of it as a ZIP");
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(browser.downloaded("mint-shelf.zip")))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) names.add(e.getName());
        }
        assertThat(names).hasSize(3).allMatch(n -> n.startsWith("Berth "));
        assertThat(SERVER.document(housing).holder().orElseThrow().name()).isEqualTo("Priya Malhan");
        assertThat(SERVER.document(lid).holder().orElseThrow().name()).isEqualTo("Tomasz Okrent");

        browser.open("/habits");
        assertThat(browser.text()).contains("takes along components of the first level");
        browser.press("Forget everything");
        browser.awaitText("Nothing is remembered");

        browser.open("/documents/" + head);
        browser.press("More for");
        browser.press("Undo check-out…");
        browser.awaitText("held by you too, of the same structure");
        browser.driver()
                .findElements(By.cssSelector("input[name=item]:not(:checked)"))
                .forEach(box -> box.click());
        browser.press("Give them back");
        browser.await(b -> SERVER.document(housing).holder().isEmpty());
        assertThat(SERVER.document(head).holder()).isEmpty();
    }

    @Test
    void whatIsNewerIsSeenAtEveryLevelTakenUpAndWhereUsedIsDrawn() {
        long clamp = file("clamp", StructureTest.assembly("c" + mark));
        long well = file("well", assembly("clamp", 4));
        long station = file("station", assembly("well", 1));
        SERVER.checkOut("priya", clamp);
        SERVER.checkIn("priya", clamp, StructureTest.assembly("c2" + mark), false);
        browser.signIn("priya");
        browser.open("/documents/" + station + "/structure");
        assertThat(browser.text()).contains("something below it is newer").contains("1 newer");
        browser.find(".spine[data-id='" + well + "']").click();
        browser.find("body").sendKeys("v");
        browser.awaitText("Around");
        browser.find("body").sendKeys("3");
        browser.awaitText("Where it is used");
        browser.open("/documents/" + well);
        browser.press("Take up…");
        browser.press("Include what stands above");
        browser.awaitText("2 documents get new versions.");
        browser.press("Make 2 versions");
        browser.await(b -> b.path().startsWith("/runs/"));
        assertThat(browser.text()).contains("Done", "new version 2");
        browser.press("Its structure");
        browser.await(b -> b.path().equals("/documents/" + station + "/structure"));
        assertThat(SERVER.document(station).head().number()).isEqualTo(2);
        browser.open("/documents/" + station + "/structure");
        assertThat(browser.text()).doesNotContain("newer component").doesNotContain("1 newer");
        browser.press("latest released");
        browser.awaitText("was never released");

        browser.open("/documents/" + clamp + "/where-used");
        assertThat(browser.all(".graph a")).hasSize(3);
        assertThat(browser.find(".graph").getText()).contains("4 ×");
        browser.driver().executeScript("document.querySelector('.graph a').focus()");
        browser.find(".graph a").sendKeys(Keys.ENTER);
        browser.await(b -> b.path().equals("/documents/" + station));
    }

    @Test
    void aMissingFileKeepsADocumentFromReleaseUntilItIsSaidWhatIsMeant() {
        long bracket = file("bracket", StructureTest.assembly("b" + mark));
        long mast = file("mast", assembly("lamp", 1));
        browser.signIn("priya");
        browser.open("/documents/" + mast);
        assertThat(browser.text()).contains("refers to 1 file that is missing: lamp " + mark + ".stp");
        browser.open("/documents/" + mast + "/refers-to");
        browser.find("input[name=number][placeholder]")
                .sendKeys(SERVER.document(bracket).number());
        browser.press("Means this");
        browser.awaitText("chosen by hand");
        browser.open("/documents/" + mast);
        browser.awaitText("Not released: " + SERVER.document(bracket).number());
        SERVER.release("priya", bracket);
        browser.open("/documents/" + mast);
        browser.awaitText("Release revision A…");
    }

    @Test
    void aModelIsReadBesideThePageShownMeasuredAndKeptAsASmallPicture() throws IOException {
        long lid = file("seen lid", lid());
        browser.signIn("priya");
        browser.open("/documents/" + lid + "/versions/1/model");
        browser.await(b -> "true".equals(b.find("[data-page=model]").getAttribute("data-ready")));
        assertThat(browser.find("[data-says]").getText()).isEqualTo("240 × 180 × 5 mm");
        assertThat(browser.all("[data-tree] li")).hasSize(1);
        new Select(browser.find("[data-cut]")).selectByValue("x");
        assertThat(browser.find("[data-cut-at]").isDisplayed()).isTrue();
        new Select(browser.find("[data-cut]")).selectByValue("");
        browser.press("Measure");
        browser.press("Top");
        for (int x : new int[] {-60, 60}) {
            new Actions(browser.driver())
                    .moveToElement(browser.find("[data-stage] canvas"), x, 0)
                    .click()
                    .perform();
        }
        browser.await(b -> b.find("[data-measured]").getText().contains("Distance"));
        browser.press("Measure");
        new Actions(browser.driver())
                .moveToElement(browser.find("[data-stage] canvas"))
                .click()
                .perform();
        browser.await(b -> !b.all("[data-tree] .tree-acts").isEmpty());
        assertThat(browser.find("[data-tree] .tree-acts").getText()).contains("Look", "Check out", "Where used");
        browser.press("Peek");
        browser.await(b -> b.find("[data-peek]").isDisplayed());
        assertThat(browser.find("[data-peek]").getText())
                .contains(SERVER.document(lid).number(), "Around");
        browser.await(b -> SERVER.bean(ReadModel.class)
                .picture(SERVER.bean(VersionStore.class)
                        .version(lid, 1)
                        .orElseThrow()
                        .content())
                .isPresent());
    }

    @Test
    void theDesksGlyphStandsOnTheStripAtTheVersionThatLiesThere() {
        long part = file("lying part", StructureTest.assembly("l" + mark));
        browser.signIn("priya");
        browser.open("/documents/" + part);
        assertThat(browser.all(".strip .desk-glyph")).isEmpty();
        String kept = "localStorage.setItem('mint.words', JSON.stringify({me: document.body.dataset.me, desk: 'Office',"
                + " words: {[arguments[0]]: 'even'}, versions: {[arguments[0]]: 1}}))";
        ((JavascriptExecutor) browser.driver()).executeScript(kept, part);
        browser.open("/documents/" + part);
        assertThat(browser.all(".strip .desk-glyph")).hasSize(1);
        assertThat(browser.find(".strip a[data-version='1']").getAttribute("aria-label"))
                .endsWith("; on your desk Office: even");
    }

    private static final String TRIANGLE = "v 0 0 0\nv 10 0 0\nv 0 10 4\nf 1 2 3\n";

    private static byte[] facets() {
        return """
                solid a
                facet normal 0 0 1
                outer loop
                vertex 0 0 0
                vertex 10 0 0
                vertex 0 10 4
                endloop
                endfacet
                endsolid a
                """.getBytes(StandardCharsets.US_ASCII);
    }

    /** Three points and a triangle, the buffer within the file as its base64. */
    private static String gltf() {
        ByteBuffer points = ByteBuffer.allocate(36).order(ByteOrder.LITTLE_ENDIAN);
        for (float v : new float[] {0, 0, 0, 10, 0, 0, 0, 10, 4}) points.putFloat(v);
        return """
                {"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0,"name":"cover"}],
                 "meshes":[{"primitives":[{"attributes":{"POSITION":0}}]}],
                 "buffers":[{"byteLength":36,"uri":"data:application/octet-stream;base64,%s"}],
                 "bufferViews":[{"buffer":0,"byteLength":36}],
                 "accessors":[{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3","min":[0,0,0],"max":[10,10,4]}]}
                """.formatted(Base64.getEncoder().encodeToString(points.array()));
    }

    private static byte[] printed() throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put(
                "[Content_Types].xml",
                "<?xml version='1.0'?><Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'><Default Extension='rels' ContentType='application/vnd.openxmlformats-package.relationships+xml'/><Default Extension='model' ContentType='application/vnd.ms-package.3dmanufacturing-3dmodel+xml'/></Types>");
        parts.put(
                "_rels/.rels",
                "<?xml version='1.0'?><Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Target='/3D/3dmodel.model' Id='r' Type='http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel'/></Relationships>");
        parts.put(
                "3D/3dmodel.model",
                "<?xml version='1.0'?><model unit='millimeter' xmlns='http://schemas.microsoft.com/3dmanufacturing/core/2015/02'><resources><object id='1' type='model'><mesh><vertices><vertex x='0' y='0' z='0'/><vertex x='10' y='0' z='0'/><vertex x='0' y='10' z='0'/><vertex x='0' y='0' z='10'/></vertices><triangles><triangle v1='0' v2='2' v3='1'/><triangle v1='0' v2='1' v3='3'/><triangle v1='0' v2='3' v3='2'/><triangle v1='1' v2='2' v3='3'/></triangles></mesh></object></resources><build><item objectid='1'/></build></model>");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue().getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return out.toByteArray();
    }

    @Test
    void modelsOfTheOpenMeshFormatsAreShownToo() throws IOException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("stl", facets());
        files.put("obj", TRIANGLE.getBytes(StandardCharsets.US_ASCII));
        files.put("gltf", gltf().getBytes(StandardCharsets.UTF_8));
        files.put("3mf", printed());
        browser.signIn("priya");
        for (Map.Entry<String, byte[]> file : files.entrySet()) {
            long item = SERVER.file(
                    "priya", shelf, "part-model", "mesh " + mark + "." + file.getKey(), file.getValue(), false);
            browser.open("/documents/" + item + "/versions/1/model");
            browser.await(b -> "true".equals(b.find("[data-page=model]").getAttribute("data-ready")));
            assertThat(browser.text())
                    .as(file.getKey())
                    .doesNotContain("cannot be")
                    .doesNotContain("could not be");
        }
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
    }
}
