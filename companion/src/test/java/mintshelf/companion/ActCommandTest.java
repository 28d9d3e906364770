package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.stream.Stream;
import mintshelf.companion.watch.Drafts;
import org.junit.jupiter.api.Test;

/** What entries of a file manager do. */
class ActCommandTest extends OnMachine {
    private int act(String act, String... paths) {
        String[] all = new String[paths.length + 3];
        all[0] = "act";
        all[1] = act;
        all[2] = "--";
        for (int i = 0; i < paths.length; i++)
            all[3 + i] = folder.resolve(paths[i]).toString();
        return shelf(all);
    }

    @Test
    void lookOpensThePageOfTheDocument() throws Exception {
        shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland");
        write("TG40/gland.dxf", "gland");
        assertThat(act("look", "TG40/gland.dxf")).isZero();
        assertThat(opened(1)).containsExactly(shelf.origin() + "/documents/7");
    }

    @Test
    void workOnOneIsQuietAndOnSeveralIsPlanned() throws Exception {
        StubShelf.Document gland = shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland");
        shelf.add(8, "TG40-3031", "TG40/cone.dxf", "cone");
        write("TG40/gland.dxf", "gland");
        write("TG40/cone.dxf", "cone");
        assertThat(act("work", "TG40/gland.dxf")).isZero();
        assertThat(gland.hold).isPositive();
        assertThat(opened(1)).containsExactly(folder.resolve("TG40/gland.dxf").toString());
        assertThat(out.toString()).contains("you hold it now");
        assertThat(act("work", "TG40/gland.dxf", "TG40/cone.dxf")).isZero();
        assertThat(opened(2).get(1)).matches(".*/check-out\\?items=(7,8|8,7)");
    }

    @Test
    void whatCannotBeCheckedOutIsSaidAndItsPageOpens() throws Exception {
        shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland").heldBy = "Tomasz Okrent";
        write("TG40/gland.dxf", "gland");
        assertThat(act("work", "TG40/gland.dxf")).isZero();
        assertThat(out.toString()).contains("TG40-3030 was not checked out", "held by Tomasz Okrent");
        assertThat(opened(1)).containsExactly(shelf.origin() + "/documents/7");
    }

    @Test
    void checkInSendsWhatDiffersAndOpensThePlanWithIt() throws Exception {
        shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland").hold = 107;
        shelf.add(8, "TG40-3031", "TG40/cone.dxf", "cone").hold = 108;
        shelf.add(9, "TG40-3032", "TG40/lid.dxf", "lid");
        write("TG40/gland.dxf", "wider");
        write("TG40/cone.dxf", "cone");
        write("TG40/lid.dxf", "lid");
        assertThat(act("check-in", "TG40/gland.dxf", "TG40/cone.dxf", "TG40/lid.dxf"))
                .isZero();
        assertThat(opened(1).get(0))
                .as("the held ones, and of what differs the bytes")
                .matches(".*/check-in\\?items=(7,8|8,7)&desk=bench&brought=7\\.[^,&]+");
        assertThat(act("check-in", "TG40/lid.dxf")).isZero();
        assertThat(out.toString()).contains("There is nothing to check in.");
        assertThat(opened(1)).hasSize(1);
    }

    @Test
    void askingUndoingAndTheNextRevision() throws Exception {
        StubShelf.Document gland = shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland");
        gland.hold = 1;
        gland.heldBy = "Tomasz Okrent";
        StubShelf.Document cone = shelf.add(8, "TG40-3031", "TG40/cone.dxf", "cone");
        write("TG40/gland.dxf", "gland");
        write("TG40/cone.dxf", "cone");
        assertThat(act("ask", "TG40/gland.dxf", "TG40/cone.dxf")).isZero();
        assertThat(out.toString()).contains("Tomasz Okrent is asked for TG40-3030", "TG40-3031 is held by nobody");
        assertThat(shelf.asked).filteredOn(a -> a.endsWith("/ask")).hasSize(1);
        assertThat(act("undo", "TG40/cone.dxf")).isZero();
        assertThat(out.toString()).contains("Nothing was given back.");
        cone.hold = 108;
        assertThat(act("undo", "TG40/cone.dxf")).isZero();
        assertThat(cone.hold).isZero();
        cone.hold = 108;
        write("TG40/cone.dxf", "changed");
        assertThat(act("undo", "TG40/cone.dxf")).isZero();
        assertThat(cone.hold).as("a changed one is looked at first").isPositive();
        assertThat(opened(1)).containsExactly(shelf.origin() + "/undo-check-out?items=8");
        assertThat(act("next", "TG40/cone.dxf")).isZero();
        assertThat(opened(2).get(1)).endsWith("/start-revision?items=8");
    }

    @Test
    void whatIsOnATrialGoesThereAndWhatIsNotGoesItsWay() throws Exception {
        StubShelf.Document gland = shelf.add(7, "TG40-3030", "TG40/gland.dxf", "gland");
        gland.onTrial = true;
        shelf.add(8, "TG40-3031", "TG40/cone.dxf", "cone").hold = 108;
        write("TG40/gland.dxf", "thinner");
        write("TG40/cone.dxf", "wider");
        assertThat(act("look", "TG40/gland.dxf")).isZero();
        assertThat(opened(1)).containsExactly(shelf.origin() + "/documents/7/lines/t1");
        assertThat(act("check-in", "TG40/gland.dxf")).isZero();
        assertThat(opened(2).get(1))
                .as("nobody holds it there: it is looked at first")
                .endsWith("/trials/7");
        assertThat(act("work", "TG40/gland.dxf")).isZero();
        assertThat(gland.triedHold).isPositive();
        assertThat(gland.hold).isZero();
        assertThat(out.toString()).contains("copy of TG40-3030 t1", "it stays as it lies", "you hold it now");
        assertThat(act("check-in", "TG40/gland.dxf", "TG40/cone.dxf")).isZero();
        assertThat(opened(5).subList(3, 5))
                .as("a plan for each line")
                .anyMatch(a -> a.matches(".*/check-in\\?items=8&desk=bench&brought=8\\.[^,&]+"))
                .anyMatch(a -> a.matches(".*/check-in\\?trial=7&desk=bench&brought=7\\.[^,&]+"));
        assertThat(act("undo", "TG40/gland.dxf")).isZero();
        assertThat(opened(6).get(5)).as("a changed one is looked at first").endsWith("/trials/7");
        write("TG40/gland.dxf", "gland");
        assertThat(act("undo", "TG40/gland.dxf")).isZero();
        assertThat(gland.triedHold).isZero();
        assertThat(act("next", "TG40/gland.dxf")).isZero();
        assertThat(opened(7).get(6)).as("a trial has no revisions").endsWith("/documents/7/lines/t1");
    }

    @Test
    void whatNoDocumentHasAndWhatLiesOnNoDeskIsSaid() throws Exception {
        write("TG40/lever.dxf", "lever");
        assertThat(act("work", "TG40/lever.dxf")).isZero();
        assertThat(out.toString()).contains("lever.dxf is only here");
        assertThat(opened(1)).containsExactly(shelf.origin() + "/desk");
        assertThat(shelf("act", "look", home.resolve("elsewhere.dxf").toString()))
                .isEqualTo(3);
        assertThat(err.toString()).contains("is no desk");
        assertThat(shelf("act", "burn", folder.resolve("TG40/lever.dxf").toString()))
                .isEqualTo(3);
        assertThat(err.toString()).contains("is no act");
    }

    @Test
    void savesOnTheWayAreLaidOutAsCopiesInAFolderThatOpens() throws Exception {
        Path lying = write("TG40/gland.dxf", "one");
        assertThat(act("saves", "TG40/gland.dxf")).isZero();
        assertThat(out.toString()).contains("Nothing of gland.dxf was kept");
        assertThat(opened(0)).isEmpty();

        Drafts drafts = DeskFolder.of(folder).drafts();
        Instant first = Instant.parse("2026-11-26T08:00:00Z");
        for (int i = 0; i < 3; i++) {
            write("TG40/gland.dxf", "save " + i);
            drafts.keep("TG40/gland.dxf", lying, DeskFolder.hash(lying), first.plusSeconds(3600L * i));
        }
        write("TG40/gland.dxf", "as it lies");
        shelf.silent = true; // they lie here: no shelf is asked for them
        Path old = Files.createDirectories(machine().data().resolve("mint-shelf/saves/lid.dxf 1"));
        Files.writeString(old.resolve("lid 2026-11-01 08.00.00.dxf"), "looked at");
        Files.setLastModifiedTime(old, FileTime.from(Instant.now().minus(Duration.ofDays(8))));
        int asked = shelf.asked.size();
        for (int time = 0; time < 2; time++) {
            assertThat(act("saves", "TG40/gland.dxf")).isZero();
            assertThat(out.toString()).contains("3 saves of gland.dxf");
            Path folder = Path.of(opened(time + 1).get(time));
            try (Stream<Path> copies = Files.list(folder).sorted()) {
                assertThat(copies)
                        .as("in the order of time, the second time as the first")
                        .extracting(Files::readString)
                        .containsExactly("save 0", "save 1", "save 2");
            }
            try (Stream<Path> copies = Files.list(folder)) {
                assertThat(copies)
                        .allMatch(c -> c.getFileName().toString().matches("gland 2026-11-2\\d [0-9.]{8}\\.dxf"))
                        .allMatch(c -> Files.exists(c) && !c.startsWith(this.folder));
            }
        }
        assertThat(shelf.asked).hasSize(asked);
        assertThat(old).as("laid out a week ago").doesNotExist();
        assertThat(read("TG40/gland.dxf")).isEqualTo("as it lies");
    }
}
