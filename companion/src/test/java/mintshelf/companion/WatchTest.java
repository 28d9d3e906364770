package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import mintshelf.companion.machine.Notices;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is told of saves: by a clock of the test, of real files. */
class WatchTest extends OnMachine {
    private static final LocalTime NOON = LocalTime.NOON;
    private final List<Notices.Notice> told = new ArrayList<>();
    private final List<String> settled = new ArrayList<>();
    private final List<Consumer<String>> waiting = new ArrayList<>();
    private StubShelf.Document gland;
    private Watch watch;
    private long now = 1_000_000_000L;

    private final class Told implements Notices {
        @Override
        public void tell(Notice notice, Consumer<String> chosen) {
            told.add(notice);
            waiting.add(chosen);
        }

        @Override
        public void settled(String about) {
            settled.add(about);
        }

        @Override
        public void close() {}
    }

    @BeforeEach
    void watch() throws IOException {
        gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        gland.base = 1;
        write("TG40/gland.dxf", "gland");
        watch = new Watch(
                machine(), DeskFolder.of(folder), new PrintWriter(out, true), new Told(), Duration.ofHours(1));
        go(1, NOON);
        told.clear();
    }

    @AfterEach
    void end() throws IOException {
        watch.close();
    }

    /** Lets the watch go on for some time of its clock; what the system tells takes a moment of the real one. */
    private void go(int seconds, LocalTime time) throws IOException {
        for (int i = 0; i < 5; i++) {
            pause();
            watch.tick(now, time);
        }
        for (int i = 0; i < seconds * 5; i++) {
            now += 200_000_000L;
            watch.tick(now, time);
        }
    }

    private static void pause() {
        try {
            Thread.sleep(30);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private List<String> titles() {
        return told.stream().map(Notices.Notice::title).toList();
    }

    @Test
    void aSaveOfAHeldFileIsToldOnceAndKeptAsADraft() throws IOException {
        gland.hold = 101;
        write("TG40/gland.dxf", "wider gland");
        go(2, NOON);
        assertThat(titles()).containsExactly("TG40-3030 is ahead");
        assertThat(told.get(0).answers()).extracting(Notices.Answer::code).containsExactly("check-in", "go-on");
        go(120, NOON);
        assertThat(told).as("told once").hasSize(1);
        assertThat(DeskFolder.of(folder).drafts().of("TG40/gland.dxf")).hasSize(1);
    }

    @Test
    void aNoticeGoesOnceItsFileWasCheckedInElsewhere() throws IOException {
        gland.hold = 101;
        write("TG40/gland.dxf", "wider gland");
        go(2, NOON);
        go(40, NOON);
        assertThat(settled).as("it is ahead still").isEmpty();
        gland.add("wider gland");
        gland.base = 2;
        gland.hold = 0;
        go(25, NOON);
        assertThat(settled).containsExactly("TG40/gland.dxf");
        int asked = shelf.asked.size();
        go(200, NOON);
        assertThat(settled).hasSize(1);
        assertThat(shelf.asked.size()).as("nothing stands any more").isEqualTo(asked);
    }

    @Test
    void whatIsOnlyHereIsToldUntilItIsFiledAndWhatWasPutBackIsToldAnew() throws IOException {
        write("TG40/loose.dxf", "loose");
        go(2, NOON);
        assertThat(titles()).containsExactly("loose.dxf is only here");
        go(60, NOON);
        assertThat(settled).as("it is only here still").isEmpty();

        gland.hold = 101;
        write("TG40/gland.dxf", "wider gland");
        go(2, NOON);
        write("TG40/gland.dxf", "gland");
        go(30, NOON);
        assertThat(settled).as("as it was").containsExactly("TG40/gland.dxf");
        write("TG40/gland.dxf", "wider gland");
        go(30, NOON);
        assertThat(titles().stream().filter("TG40-3030 is ahead"::equals)).hasSize(2);
    }

    @Test
    void aSaveOfOneThatNobodyHoldsIsToldWithItsRemedyAndTheAnswerTakesIt() throws IOException {
        write("TG40/gland.dxf", "mine");
        go(2, NOON);
        assertThat(titles()).containsExactly("TG40-3030 was changed without a hold");
        waiting.get(0).accept("take");
        go(1, NOON);
        assertThat(gland.hold).isPositive();
        assertThat(titles()).contains("You hold TG40-3030 now");
        assertThat(read("TG40/gland.dxf")).isEqualTo("mine");
    }

    @Test
    void aStormOfSavesIsToldOnceAndItsLastOneAMinuteLater() throws IOException {
        gland.hold = 101;
        for (int i = 0; i < 20; i++) {
            write("TG40/gland.dxf", "save " + i);
            go(1, NOON);
        }
        assertThat(told).as("twenty seconds of saves").hasSize(1);
        go(60, NOON);
        assertThat(told).as("how it stands after them").hasSize(2);
        go(120, NOON);
        assertThat(told).hasSize(2);
        assertThat(told.get(1).about())
                .as("in the place of the first")
                .isEqualTo(told.get(0).about());
    }

    @Test
    void whoGoesOnWorkingHearsNoMoreOfItUntilItIsCheckedIn() throws IOException {
        gland.hold = 101;
        write("TG40/gland.dxf", "one");
        go(2, NOON);
        waiting.get(0).accept("go-on");
        go(70, NOON);
        write("TG40/gland.dxf", "two");
        go(2, NOON);
        assertThat(told).hasSize(1);
        gland.add("two");
        gland.base = 2;
        write("TG40/gland.dxf", "three");
        go(70, NOON);
        assertThat(titles()).endsWith("TG40-3030 is ahead");
    }

    @Test
    void aSaveByRenamingOverIsTheSameSaveAndWhatLiesBesideIsNone() throws IOException {
        gland.hold = 101;
        Path beside = write("TG40/gland.tmp", "wider gland");
        go(2, NOON);
        assertThat(told).isEmpty();
        Files.move(beside, folder.resolve("TG40/gland.dxf"), StandardCopyOption.REPLACE_EXISTING);
        go(2, NOON);
        assertThat(titles()).containsExactly("TG40-3030 is ahead");
    }

    @Test
    void inQuietHoursNothingIsToldAndOneSentenceAfterThem() throws IOException {
        assertThat(desk("register", "--quiet", "18:00-07:30")).isZero();
        gland.hold = 101;
        write("TG40/gland.dxf", "late");
        go(2, LocalTime.of(23, 0));
        assertThat(told).isEmpty();
        write("TG40/lever.dxf", "morning");
        go(2, LocalTime.of(8, 0));
        assertThat(titles()).contains("1 save in your quiet hours");
        assertThat(desk("register", "--quiet", "from dusk till dawn")).isEqualTo(3);
        assertThat(err.toString()).contains("says no two times");
    }

    @Test
    void aShelfThatDoesNotAnswerIsSaidOnceAndWhatWasSavedIsToldOnceItDoes() throws IOException {
        gland.hold = 101;
        shelf.silent = true;
        write("TG40/gland.dxf", "in the train");
        go(5, NOON);
        assertThat(titles()).containsExactly("The shelf does not answer");
        shelf.silent = false;
        go(5, NOON);
        assertThat(titles()).containsExactly("The shelf does not answer", "TG40-3030 is ahead");
    }

    @Test
    void aMachineThatIsAwayAsksLessAndLess() throws IOException {
        gland.hold = 101;
        shelf.silent = true;
        write("TG40/gland.dxf", "in the train");
        int before = shelf.asked.size();
        go(300, NOON);
        assertThat(shelf.asked.size() - before)
                .as("of a hundred times three seconds")
                .isBetween(5, 50);
        assertThat(told).hasSize(1);
    }

    @Test
    void aTokenThatIsRevokedIsSaidOnce() throws IOException {
        shelf.revoked = true;
        gland.hold = 101;
        write("TG40/gland.dxf", "one");
        go(5, NOON);
        write("TG40/gland.dxf", "two");
        go(5, NOON);
        assertThat(titles()).containsExactly("bench is not paired any more");
        assertThat(read("TG40/gland.dxf")).isEqualTo("two");
    }

    @Test
    void differencesOfASheetAreCountedOnThisMachine() throws IOException {
        StubShelf.Document sheet = shelf.add(2, "TG40-3031", "TG40/cone.dxf", dxf(4.5));
        sheet.base = 1;
        sheet.hold = 102;
        write("TG40/cone.dxf", dxf(4.5));
        go(2, NOON);
        told.clear();
        write("TG40/cone.dxf", dxf(6));
        go(2, NOON);
        assertThat(titles()).containsExactly("TG40-3031 is ahead: 1 difference");
    }

    private static String dxf(double radius) {
        return String.join(
                "\n",
                "0",
                "SECTION",
                "2",
                "ENTITIES",
                "0",
                "LINE",
                "8",
                "0",
                "10",
                "0",
                "20",
                "0",
                "11",
                "100",
                "21",
                "0",
                "0",
                "CIRCLE",
                "8",
                "0",
                "10",
                "50",
                "20",
                "50",
                "40",
                "" + radius,
                "0",
                "ENDSEC",
                "0",
                "EOF",
                "");
    }

    @Test
    void whereTheSystemTellsNothingOfASaveItShowsWhenTheDeskIsLookedAt() throws IOException {
        watch.close(); // it hears nothing more, as on a share
        watch =
                new Watch(
                        machine(),
                        DeskFolder.of(folder),
                        new PrintWriter(out, true),
                        new Told(),
                        Duration.ofSeconds(60)) {
                    @Override
                    Set<String> touched() {
                        return Set.of();
                    }
                };
        go(1, NOON);
        gland.hold = 101;
        write("TG40/gland.dxf", "on a share");
        go(10, NOON);
        assertThat(told).isEmpty();
        go(60, NOON);
        assertThat(titles()).containsExactly("TG40-3030 is ahead");
        go(120, NOON);
        assertThat(told).as("once").hasSize(1);
    }

    @Test
    void aSecondWatchFindsTheFirst() throws IOException {
        try (WatchLock lock = WatchLock.of(DeskFolder.of(folder)).orElseThrow()) {
            assertThat(desk("watch", "--seconds", "5")).isZero();
            assertThat(out.toString()).isEqualToIgnoringNewLines("bench is watched already.");
            assertThat(lock).isNotNull();
        }
    }

    @Test
    void anHourAgoCanBeHadBackAndWhatLiesThereIsKept() throws IOException {
        gland.hold = 101;
        write("TG40/gland.dxf", "an hour ago");
        go(2, NOON);
        write("TG40/gland.dxf", "spoiled");
        assertThat(shelf("drafts", folder.resolve("TG40/gland.dxf").toString())).isZero();
        assertThat(out.toString()).contains(" 1  ");
        assertThat(shelf("drafts", folder.resolve("TG40/gland.dxf").toString(), "--back", "1"))
                .isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("an hour ago");
        assertThat(shelf("drafts", folder.resolve("TG40/gland.dxf").toString(), "--back", "1"))
                .isZero();
        assertThat(read("TG40/gland.dxf")).as("the way back goes both ways").isEqualTo("spoiled");
        assertThat(shelf("drafts", folder.resolve("TG40/gland.dxf").toString(), "--back", "9"))
                .isEqualTo(3);
        assertThat(err.toString()).contains("There is no draft 9");
    }

    @Test
    void theDoctorSaysWhatIsWrongAndHowToMendIt() throws IOException {
        assertThat(desk("doctor")).as("nothing watches it").isEqualTo(1);
        assertThat(out.toString())
                .contains("well  links", "well  token", "Priya Malhan", "mend  watch: nothing watches this desk.");
        try (WatchLock lock = WatchLock.of(DeskFolder.of(folder)).orElseThrow()) {
            assertThat(desk("doctor")).isZero();
            assertThat(lock).isNotNull();
        }
        Files.setPosixFilePermissions(folder.resolve(".mint-desk.json"), PosixFilePermissions.fromString("rw-r--r--"));
        shelf.revoked = true;
        assertThat(desk("doctor")).isEqualTo(1);
        assertThat(out.toString())
                .contains("mend  token: others on this machine can read it.", "mend  shelf: the token", "chmod 600");
        shelf.close();
        assertThat(desk("doctor")).isEqualTo(1);
        assertThat(out.toString()).contains("does not answer");
    }
}
