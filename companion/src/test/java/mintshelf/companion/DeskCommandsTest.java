package mintshelf.companion;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

/** The desk's commands as a person types them, against a shelf that knows just what they ask. */
class DeskCommandsTest {
    @TempDir
    Path folder;

    private StubShelf shelf;
    private StringWriter out = new StringWriter();
    private StringWriter err = new StringWriter();

    @BeforeEach
    void pair() throws IOException {
        shelf = new StubShelf();
        assertThat(desk("pair", shelf.origin(), "4711", "--name", "bench")).isZero();
    }

    @AfterEach
    void stop() {
        shelf.close();
    }

    private int desk(String command, String... arguments) {
        out = new StringWriter();
        err = new StringWriter();
        CommandLine line = Companion.commandLine();
        line.setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        List<String> all = new ArrayList<>(List.of("desk", command));
        all.addAll(Arrays.asList(arguments));
        all.addAll(List.of("--desk", folder.toString()));
        return line.execute(all.toArray(String[]::new));
    }

    private String read(String path) throws IOException {
        return Files.readString(folder.resolve(path));
    }

    private void write(String path, String text) {
        try {
            Files.createDirectories(folder.resolve(path).getParent());
            Files.writeString(folder.resolve(path), text);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void pairingKeepsTheTokenForItsOwnerAlone() throws IOException {
        assertThat(out.toString()).contains("bench is paired with " + shelf.origin());
        Path settings = folder.resolve(".mint-desk.json");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(settings)))
                .isEqualTo("rw-------");
        assertThat(desk("pair", shelf.origin(), "0000")).isEqualTo(1);
        assertThat(err.toString()).contains("The code is not known. Ask a colleague.");
    }

    @Test
    void whatIsNoDeskOrDoesNotAnswerIsSaidInOneLine() throws IOException {
        Path other = Files.createTempDirectory("no-desk");
        CommandLine line = Companion.commandLine();
        line.setErr(new PrintWriter(err));
        assertThat(line.execute("desk", "status", "--desk", other.toString())).isEqualTo(3);
        assertThat(err.toString()).contains("is no desk. Pair it first").hasLineCount(1);
        Files.delete(other);
        shelf.close();
        assertThat(desk("status")).isEqualTo(3);
        assertThat(err.toString()).contains("does not answer").hasLineCount(1);
    }

    @Test
    void statusSaysHowEachFileStands() {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").hold = 101;
        shelf.add(2, "TG40-3031", "TG40/cone.dxf", "cone").add("wider cone");
        write("TG40/gland.dxf", "changed gland");
        write("TG40/cone.dxf", "cone");
        write("TG40/lever.dxf", "lever");
        write(".hidden/x.dxf", "x");
        assertThat(desk("status")).isZero();
        assertThat(out.toString().lines())
                .containsExactly(
                        "ahead      TG40-3030      TG40/gland.dxf  says check-in",
                        "behind     TG40-3031      TG40/cone.dxf  says bring",
                        "new                       TG40/lever.dxf  file it");
        assertThat(desk("status", "--json")).isZero();
        assertThat(out.toString()).startsWith("[{").contains("\"word\":\"behind\"");
    }

    @Test
    void fetchWithoutWordsBringsWhatIsBehindOrAbsent() throws IOException {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").base = 1;
        shelf.add(2, "TG40-3031", "TG40/cone.dxf", "cone").add("wider cone");
        write("TG40/cone.dxf", "cone");
        assertThat(desk("fetch")).isZero();
        assertThat(out.toString()).contains("2 files are here.");
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
        assertThat(read("TG40/cone.dxf")).isEqualTo("wider cone");
        assertThat(shelf.documents.get(2L).base).isEqualTo(2);
        assertThat(desk("fetch")).isZero();
        assertThat(out.toString()).contains("0 files are here.");
    }

    @Test
    void whatWasChangedIsLeftUnlessItIsSetAside() throws IOException {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        write("TG40/gland.dxf", "mine");
        assertThat(desk("fetch", "TG40-3030")).isZero();
        assertThat(out.toString()).contains("is strayed and was left as it is").contains("0 files are here.");
        assertThat(read("TG40/gland.dxf")).isEqualTo("mine");
        assertThat(desk("fetch", "TG40-3030", "--aside")).isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
        assertThat(read("TG40/gland (mine).dxf")).isEqualTo("mine");
        write("TG40/gland.dxf", "mine again");
        assertThat(desk("fetch", "TG40-3030", "--aside")).isZero();
        assertThat(read("TG40/gland (mine 2).dxf")).isEqualTo("mine again");
    }

    @Test
    void whatIsSavedWhileItsNewVersionComesIsNotOverwritten() throws IOException {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").add("wider gland");
        write("TG40/gland.dxf", "gland");
        shelf.before = () -> {
            if (shelf.asked.get(shelf.asked.size() - 1).endsWith("/content")) write("TG40/gland.dxf", "saved just now");
        };
        assertThat(desk("fetch", "TG40-3030")).isZero();
        assertThat(out.toString()).contains("was changed meanwhile and was left as it is");
        assertThat(read("TG40/gland.dxf")).isEqualTo("saved just now");
        assertThat(shelf.documents.get(1L).base).as("nothing was noted").isZero();
        try (var files = Files.list(folder.resolve("TG40"))) {
            assertThat(files).as("no part is left behind").hasSize(1);
        }
    }

    @Test
    void componentsComeInTheVersionsThatTheParentWasSavedWith() throws IOException {
        StubShelf.Document well = shelf.add(1, "TG40-3000", "TG40/well.stp", "well");
        shelf.add(2, "TG40-3030", "TG40/parts/gland.stp", "gland").add("wider gland");
        well.components.add(new long[] {2, 1});
        well.components.add(new long[] {2, 1});
        well.components.add(new long[] {0, 0});
        assertThat(desk("fetch", "TG40-3000", "--components")).isZero();
        assertThat(read("TG40/parts/gland.stp")).isEqualTo("gland");
        assertThat(out.toString())
                .contains("Not to be had: elsewhere/unseen.stp")
                .contains("2 files are here.");
        assertThat(shelf.documents.get(2L).base).isEqualTo(1);
    }

    @Test
    void anOlderVersionComesOnPurpose() throws IOException {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").add("wider gland");
        assertThat(desk("fetch", "TG40-3030", "--version", "1")).isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
    }

    @Test
    void aNumberOfSeveralDocumentsIsAskedByFileAndAnUnknownOneIsSaid() {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "drawing");
        shelf.add(2, "TG40-3030", "TG40/gland.stp", "model");
        assertThat(desk("fetch", "TG40-3030")).isEqualTo(3);
        assertThat(err.toString()).contains("several documents", "TG40/gland.dxf", "TG40/gland.stp");
        assertThat(desk("fetch", folder.resolve("TG40/gland.stp").toString())).isZero();
        assertThat(folder.resolve("TG40/gland.stp")).hasContent("model");
        assertThat(desk("fetch", "TG99")).isEqualTo(3);
        assertThat(err.toString()).contains("No document that you see is “TG99”.");
    }

    @Test
    void noPathOfTheShelfLeadsOutOfTheDesk() {
        shelf.add(1, "EVIL", "../outside.dxf", "evil");
        assertThat(desk("fetch", "EVIL")).isEqualTo(3);
        assertThat(err.toString()).contains("leads out of the desk");
        assertThat(folder.resolveSibling("outside.dxf")).doesNotExist();
    }

    @Test
    void aCheckOutHoldsAndBringsAndTheWayBackIsOneAct() throws IOException {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        assertThat(desk("check-out", "TG40-3030", "-m", "wider")).isZero();
        assertThat(out.toString()).contains("You hold TG40-3030, version 1.");
        assertThat(gland.hold).isPositive();
        write("TG40/gland.dxf", "wider gland");
        assertThat(desk("check-in", "-m", "two wider", "--keep")).isZero();
        assertThat(out.toString()).contains("TG40-3030: version 2");
        assertThat(gland.hold).as("kept").isPositive();
        write("TG40/gland.dxf", "still wider gland");
        assertThat(desk("check-in")).isZero();
        assertThat(gland.latest()).isEqualTo("still wider gland");
        assertThat(gland.hold).isZero();
        assertThat(gland.base).isEqualTo(3);
        assertThat(desk("check-in")).isEqualTo(1);
        assertThat(err.toString()).contains("Nothing here is ahead of the shelf.");
    }

    @Test
    void aHoldThatIsRefusedIsSaidAndNothingIsBrought() {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland").heldBy = "Tomasz Okrent";
        assertThat(desk("check-out", "TG40-3030")).isEqualTo(1);
        assertThat(err.toString()).contains("held by Tomasz Okrent").contains("Ask a colleague.");
        assertThat(folder.resolve("TG40/gland.dxf")).doesNotExist();
    }

    @Test
    void aStrayedFileIsTakenOnlyWhenOneSaysSo() {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        write("TG40/gland.dxf", "mine");
        assertThat(desk("check-in")).isEqualTo(1);
        assertThat(desk("check-in", "--take")).isZero();
        assertThat(gland.latest()).isEqualTo("mine");
    }

    @Test
    void whatWasOnlyHeldGoesBackUnchangedWhenItIsNamed() {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        assertThat(desk("check-out", "TG40-3030")).isZero();
        assertThat(desk("check-in", "TG40-3030")).isZero();
        assertThat(out.toString()).contains("nothing changed; no version");
        assertThat(gland.hold).isZero();
        assertThat(shelf.asked).noneMatch(a -> a.startsWith("POST /uploads"));
    }

    @Test
    void anUploadThatBreaksGoesOnFromWhereTheShelfStands() {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        assertThat(desk("check-out", "TG40-3030")).isZero();
        String large = "wider gland ".repeat(5_000);
        write("TG40/gland.dxf", large);
        shelf.breaks = 3;
        shelf.most = 20_000;
        assertThat(desk("check-in")).isZero();
        assertThat(gland.latest()).isEqualTo(large);
        assertThat(shelf.asked).filteredOn(a -> a.startsWith("GET /uploads/")).hasSize(3);
    }

    @Test
    void undoGivesHoldsBackAndSaysWhatStaysChanged() {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        assertThat(desk("check-out", "TG40-3030")).isZero();
        write("TG40/gland.dxf", "mine");
        assertThat(desk("undo", "TG40-3030")).isZero();
        assertThat(gland.hold).isZero();
        assertThat(out.toString()).contains("TG40/gland.dxf stays as you changed it");
    }

    @Test
    void watchTellsWhatChangesAndWhatIsGone() throws Exception {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        write("TG40/gland.dxf", "gland");
        write("TG40/lever.dxf", "lever");
        shelf.before = () -> {
            if (shelf.asked.stream().filter(a -> a.endsWith("/status")).count() == 2) {
                shelf.before = () -> {};
                shelf.documents.get(1L).add("wider gland");
            }
        };
        Thread remover = new Thread(() -> {
            try {
                Thread.sleep(500);
                Files.delete(folder.resolve("TG40/lever.dxf"));
            } catch (InterruptedException | IOException e) {
                throw new IllegalStateException(e);
            }
        });
        remover.start();
        assertThat(desk("watch", "--seconds", "1")).isZero();
        remover.join();
        assertThat(out.toString().lines())
                .containsExactly("new  TG40/lever.dxf", "behind  TG40/gland.dxf", "gone  TG40/lever.dxf");
    }

    @Test
    void hashesAreRememberedAndWhatChangedIsReadAnew() throws IOException {
        shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        write("TG40/gland.dxf", "gland");
        assertThat(desk("status")).isZero();
        assertThat(read(".mint-desk-hashes.json"))
                .as("one that was written just now may be written again without its size and time changing")
                .doesNotContain("TG40/gland.dxf");
        Files.setLastModifiedTime(
                folder.resolve("TG40/gland.dxf"), FileTime.from(Instant.now().minusSeconds(60)));
        assertThat(desk("status")).isZero();
        assertThat(read(".mint-desk-hashes.json")).contains("TG40/gland.dxf");
        Files.writeString(folder.resolve(".mint-desk-hashes.json"), "{ broken");
        assertThat(desk("status")).isZero();
        assertThat(out.toString()).startsWith("even");
        write("TG40/gland.dxf", "another one");
        assertThat(desk("status")).isZero();
        assertThat(out.toString()).startsWith("strayed");
    }

    @Test
    void theLineOfATrialIsWorkedOnLikeTheMainOne() throws IOException {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        assertThat(desk("check-out", "TG40-3030", "--line", "t1")).isZero();
        assertThat(out.toString()).contains("You hold TG40-3030 t1, version 1.");
        assertThat(gland.hold).as("the main line stays free").isZero();
        write("TG40/gland.dxf", "thinner gland");
        assertThat(desk("status")).isZero();
        assertThat(out.toString()).startsWith("ahead      TG40-3030 t1   TG40/gland.dxf");
        assertThat(desk("check-in", "-m", "thinner")).isZero();
        assertThat(out.toString()).contains("TG40-3030 t1: version t1/1");
        assertThat(gland.versions).hasSize(1);
        assertThat(desk("status")).isZero();
        assertThat(out.toString()).startsWith("even       TG40-3030 t1");
        gland.tried.add("thinner still".getBytes(StandardCharsets.UTF_8));
        assertThat(desk("fetch")).isZero();
        assertThat(read("TG40/gland.dxf"))
                .as("what is behind is behind its own line")
                .isEqualTo("thinner still");
        assertThat(desk("check-out", "TG40-3030"))
                .as("on the line on which the desk is")
                .isZero();
        assertThat(gland.triedHold).isPositive();
        assertThat(desk("undo", "TG40-3030")).isZero();
        assertThat(gland.triedHold).isZero();
        assertThat(desk("fetch", "TG40-3030", "--line", "main")).isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
        assertThat(desk("status")).isZero();
        assertThat(out.toString()).startsWith("even       TG40-3030      TG40/gland.dxf");
        assertThat(desk("fetch", "TG40-3030", "--line", "t1", "--version", "1")).isZero();
        assertThat(read("TG40/gland.dxf")).isEqualTo("thinner gland");
    }

    @Test
    void whatWasChangedIsNotOverwrittenByAnotherLine() throws IOException {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        gland.tried.add("thinner gland".getBytes(StandardCharsets.UTF_8));
        write("TG40/gland.dxf", "mine");
        assertThat(desk("fetch", "TG40-3030", "--line", "t1")).isZero();
        assertThat(out.toString()).contains("is strayed and was left as it is");
        assertThat(read("TG40/gland.dxf")).isEqualTo("mine");
        assertThat(gland.onTrial).as("the desk stays where it was").isFalse();
    }

    @Test
    void whatCameOnOneLineIsNotedWhenAnotherIsRefused() throws IOException {
        StubShelf.Document gland = shelf.add(1, "TG40-3030", "TG40/gland.dxf", "gland");
        StubShelf.Document cone = shelf.add(2, "TG40-3031", "TG40/cone.dxf", "cone");
        cone.onTrial = true;
        cone.base = 1;
        cone.triedBy = "Tomasz Okrent";
        assertThat(desk("check-out", "TG40-3030", "TG40-3031")).isEqualTo(1);
        assertThat(err.toString()).contains("held by Tomasz Okrent");
        assertThat(gland.hold).isPositive();
        assertThat(read("TG40/gland.dxf")).isEqualTo("gland");
        assertThat(gland.base).as("the desk knows what lies there").isEqualTo(1);
    }
}
