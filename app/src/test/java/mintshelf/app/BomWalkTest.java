package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.revision.StartRevisions;
import org.junit.jupiter.api.Test;

/** A designer writes what no file has into a bill of materials, sees what it differs by, and what it lacks. */
class BomWalkTest extends InBrowser {
    private final long shelf = SERVER.shelf();
    private final String mark = "K" + Long.toHexString(shelf) + "x";

    private long file(String name, Map<String, String> facts, Object... filesAndCounts) {
        long item = SERVER.file(
                "priya",
                shelf,
                "part-model",
                mark + name + ".stp",
                mark + "-" + name,
                StructureTest.assembly(name + mark, filesAndCounts),
                false);
        SERVER.bean(KeepFacts.class).keep(SERVER.actor("priya"), item, Server.key(), name, facts, Map.of());
        return item;
    }

    @Test
    void linesByHandStandBesideThoseOfTheFile() {
        long screw = file("screw", Map.of("comes", "library", "mass", "0.01", "cost", "0.2"));
        long box = file("box", Map.of("mass", "2", "cost", "40"));
        long top = file("pump", Map.of(), mark + "box.stp", 1, mark + "screw.stp", 6);
        for (long one : List.of(screw, box, top)) SERVER.release("priya", one);
        SERVER.bean(StartRevisions.class).start(SERVER.actor("priya"), List.of(top), Server.key(), "more", "", true);
        browser.signIn("priya");
        browser.open("/documents/" + top + "/structure");
        browser.press("Bill of materials");
        browser.awaitText("2.06 kg");
        browser.awaitText("nothing differs");
        browser.press("Write a line by hand…");
        browser.find("#named").sendKeys("Grease");
        browser.find("#quantity").sendKeys("-5");
        browser.press("Keep the line");
        browser.awaitText("is no quantity");
        browser.open("/documents/" + top + "/bom/line");
        browser.find("#named").sendKeys("Grease");
        browser.find("#quantity").sendKeys("5");
        browser.find("#find-number").sendKeys("3");
        browser.find("#unit option[value=g]").click();
        browser.press("Keep the line");
        browser.awaitText("Grease, by hand");
        browser.awaitText("To revision A: 1 added");
        browser.awaitText("over 41.20 EUR");
        browser.press("1 part lacks it");
        browser.awaitText("no cost");
        browser.find("a[title='Change line 3']").click();
        browser.find("#cost").sendKeys("0.1");
        browser.press("Keep the line");
        browser.awaitText("41.70 EUR");
        browser.find("a[title='Change line 2']").click();
        browser.awaitText("The file of " + mark + "-pump has it");
        browser.find("#quantity").sendKeys("8");
        browser.press("Keep the line");
        browser.awaitText("6 pc → 8 pc");
        assertThat(Browser.axe().analyze(browser.driver()).getViolations()).isEmpty();
        browser.press("purchasing");
        browser.awaitText("What is bought, below what is made");
        assertThat(browser.text()).contains("8 pc", "5 g").doesNotContain("-box");
        browser.press("engineering");
        browser.find("#with").clear();
        browser.find("#with").sendKeys(mark + "-box");
        browser.press("Compare");
        browser.awaitText("3 added");
        browser.find("a[title='Change line 3']").click();
        browser.press("Take the line away");
        browser.awaitText("2.08 kg");
        assertThat(browser.text()).doesNotContain("Grease");
    }
}
