package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Links of pages, as a browser hands them over. */
class OpenCommandTest extends OnMachine {
    @Test
    void aLinkToLookAtBringsACopyAndOpensIt() throws Exception {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland plate.dxf", "gland");
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isZero();
        assertThat(read("TG40/gland plate.dxf")).isEqualTo("gland");
        assertThat(opened(1))
                .containsExactly(folder.resolve("TG40/gland plate.dxf").toString());
        assertThat(gland.hold).isZero();
        assertThat(gland.base).isEqualTo(1);
        assertThat(shelf.said).containsExactly("done: TG40-3030 version 1 is open on bench.");
    }

    @Test
    void aLinkToWorkHoldsBringsTheLatestWithItsComponentsAndOpensIt() throws Exception {
        StubShelf.Document well = shelf.add(1, "TG40-3000", "TG40/well.stp", "well");
        well.add("deeper well");
        shelf.add(2, "TG40-3030", "TG40/parts/gland.stp", "gland").add("wider gland");
        well.components.add(new long[] {2, 1});
        well.components.add(new long[] {0, 0});
        assertThat(shelf("open", shelf.link(1, 1, "work"))).isZero();
        assertThat(read("TG40/well.stp")).isEqualTo("deeper well");
        assertThat(read("TG40/parts/gland.stp")).isEqualTo("gland");
        assertThat(well.hold).isPositive();
        assertThat(opened(1)).containsExactly(folder.resolve("TG40/well.stp").toString());
        assertThat(shelf.said)
                .containsExactly("done: TG40-3000 version 2 is open on bench; you hold it now, with 1 component.");
    }

    @Test
    void aLinkIsGoodOnce() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        String link = shelf.link(1, 1, "look");
        assertThat(shelf("open", link)).isZero();
        assertThat(shelf("open", link)).isEqualTo(1);
        assertThat(err.toString()).contains("Nothing was opened. That link was used.");
        assertThat(opened(1)).hasSize(1);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "mint-shelf:open/ffffffffffffffff/abcdefghijklmnopqrstuvwxyz",
                "mint-shelf:open/0123456789abcdef/../../etc/passwd",
                "mint-shelf:/etc/passwd",
                "file:///etc/passwd",
                "--version",
                ""
            })
    void aLinkOfAnotherPageOrDeskReachesNoServerAndOpensNothing(String link) throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        shelf.link(1, 1, "work");
        shelf.asked.clear();
        assertThat(shelf("open", "--", link)).isEqualTo(1);
        assertThat(shelf.asked).isEmpty();
        assertThat(opened(0)).isEmpty();
        assertThat(shelf.link).as("not used up").isNotEmpty();
    }

    @Test
    void whatWasChangedHereStaysAndIsOpenedAsItLies() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").add("wider gland");
        write("TG40/gland.dxf", "mine");
        assertThat(shelf("open", shelf.link(1, 2, "look"))).isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("mine");
        assertThat(opened(1)).hasSize(1);
        assertThat(shelf.said).first().asString().contains("Your own copy of TG40-3030 differs from the shelf's");
    }

    @Test
    void whatIsHeldByAnotherIsSaidAndNotOpened() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").heldBy = "Tomasz Okrent";
        assertThat(shelf("open", shelf.link(1, 1, "work"))).isEqualTo(1);
        assertThat(shelf.said).containsExactly("not done: TG40-3030 is held by Tomasz Okrent. Ask a colleague.");
        assertThat(opened(0)).isEmpty();
        assertThat(folder.resolve("TG40/gland.dxf")).doesNotExist();
    }

    @Test
    void aProgramIsBroughtAndNeverRun() throws Exception {
        shelf.add(1, "TOOL-1", "TG40/clean up.desktop", "[Desktop Entry]\nExec=rm -rf ~");
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isZero();
        assertThat(folder.resolve("TG40/clean up.desktop")).exists();
        assertThat(opened(0)).isEmpty();
        assertThat(shelf.said).first().asString().contains("It is a program, so it was not opened.");
    }

    @Test
    void aPathThatLeadsOutOfTheDeskIsNotWritten() throws Exception {
        shelf.add(1, "EVIL", "../outside.dxf", "evil");
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isEqualTo(1);
        assertThat(home.resolve("outside.dxf")).doesNotExist();
        assertThat(opened(0)).isEmpty();
    }

    @Test
    void aTokenThatIsRevokedInMidActIsSaidOnceAndNothingIsLost() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").add("wider gland");
        write("TG40/gland.dxf", "gland");
        String link = shelf.link(1, 2, "look");
        shelf.before = () -> {
            if (shelf.asked.get(shelf.asked.size() - 1).endsWith("/content")) shelf.revoked = true;
        };
        assertThat(shelf("open", link)).isEqualTo(1);
        assertThat(err.toString()).containsOnlyOnce("not in force any more").contains("pair the folder again");
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
        try (var files = Files.list(folder.resolve("TG40"))) {
            assertThat(files.map(Path::getFileName).map(Path::toString))
                    .as("no part is left")
                    .containsExactly("gland.dxf");
        }
    }

    @Test
    void aDeskThatIsGivenBackTakesNoLinksAndTheMachineForgetsIt() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        Files.createDirectories(folder.resolve("TG40"));
        assertThat(desk("register")).isZero();
        assertThat(folder.resolve("TG40/.directory")).content().contains("Mirrors the shelf TG40");
        assertThat(opened(1))
                .as("where the browser learns of it")
                .containsExactly(shelf.origin() + "/desk/programs?opens=bench");
        assertThat(home.resolve(".local/share/applications/mint-shelf.desktop")).exists();
        assertThat(desk("register", "--away")).isZero();
        assertThat(shelf.opens).isFalse();
        assertThat(folder.resolve("TG40/.directory")).doesNotExist();
        assertThat(home.resolve(".local/share/applications/mint-shelf.desktop")).doesNotExist();
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isEqualTo(1);
        assertThat(err.toString()).contains("not on this machine");
    }

    @Test
    void aProgramOfOnesOwnChoiceOpensFilesOfItsEnding() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland plate.dxf", "gland");
        String command = "dxf=\"" + home.resolve("bin/xdg-open") + "\" --with";
        assertThat(desk("register", "--program", command, "--quiet", "22:00-06:00"))
                .isZero();
        assertThat(opened(1)).hasSize(1);
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isZero();
        assertThat(opened(2).get(1)).as("its first word").isEqualTo("--with");
        assertThat(desk("register", "--program", "dxf=nowhere/at-all")).isZero();
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isZero();
        assertThat(shelf.said).last().asString().contains("“nowhere/at-all” is not on this machine.");
        assertThat(desk("register", "--program", "dxf=")).isZero();
        assertThat(shelf("open", shelf.link(1, 1, "look"))).isZero();
        assertThat(opened(5)).endsWith(folder.resolve("TG40/gland plate.dxf").toString());
        assertThat(Files.readString(home.resolve(".config/mint-shelf/helper.json")))
                .as("the hours stay")
                .contains("22:00-06:00");
    }

    @Test
    void whatCannotLieDownIsSaidWithWhatWasKept() throws Exception {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        Files.writeString(folder.resolve("TG40"), "a file where the folder should be");
        assertThat(shelf("open", shelf.link(1, 1, "work"))).isEqualTo(1);
        assertThat(gland.hold).isPositive();
        assertThat(shelf.said)
                .first()
                .asString()
                .startsWith("not done: You hold TG40-3030 now, but its file did not come:")
                .endsWith("What lay here stays as it was.");
        assertThat(folder.resolve("TG40")).hasContent("a file where the folder should be");
        assertThat(opened(0)).isEmpty();
    }
}
