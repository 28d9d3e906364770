package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Tokens;
import mintshelf.core.base.ContentHash;
import mintshelf.core.desk.DeskRules.Word;
import mintshelf.core.document.VersionName;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A desk works with a document on its main line, or on that of a trial: brought, changed, checked in and led back by the companion. */
class DeskTrialTest extends InTrial {
    private final Desks desks = server.bean(Desks.class);
    private DeskRun companion;
    private final String bench = "BENCH " + mark;

    @TempDir
    Path folder;

    @BeforeEach
    void pair() {
        assertThat(desk("pair", server.origin(), server.bean(Tokens.class).code(priya), "--name", bench))
                .as(companion.said())
                .isZero();
    }

    private int desk(String... arguments) {
        if (companion == null) companion = new DeskRun(folder);
        return companion.run(arguments);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private long filed(String name, String text) {
        return server.file(
                "priya", shelf, "drawing", mark + " " + name + ".txt", mark + "-" + name, bytes(text), false);
    }

    private Path place(String name) {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(p -> p.endsWith(mark + " " + name + ".txt"))
                    .findFirst()
                    .orElseThrow();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private String number(String name) {
        return mark + "-" + name;
    }

    private Desks.DeskLine standing(long item, String name) throws IOException {
        Path file = place(name);
        String path = folder.relativize(file).toString();
        return desks
                .status(priya, bench, List.of(new Desks.OnDisk(path, ContentHash.compute(Files.readAllBytes(file)))))
                .stream()
                .filter(l -> l.seen().filter(s -> s.spine().id() == item).isPresent())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aTrialIsWorkedOnFromADesk() throws IOException {
        long item = filed("wall", "as it was");
        begin(priya, "thinner wall", item);
        assertThat(desk("fetch", number("wall"))).isZero();
        assertThat(standing(item, "wall").trial()).isEmpty();
        assertThat(desk("check-out", number("wall"), "--line", "t1", "-m", "a try"))
                .as(companion.said())
                .isZero();
        assertThat(server.document(item).holder())
                .as("the main line stays free for others")
                .isEmpty();
        Files.writeString(place("wall"), "thinner");
        assertThat(standing(item, "wall").standing().word()).isEqualTo(Word.AHEAD);
        assertThat(desk("check-in", "-m", "thinner")).as(companion.said()).isZero();
        assertThat(companion.said()).contains(number("wall") + " t1: version t1/1");
        assertThat(server.document(item).head().number())
                .as("nothing of the document moved")
                .isEqualTo(1);
        Desks.DeskLine even = standing(item, "wall");
        assertThat(even.standing().word()).isEqualTo(Word.EVEN);
        assertThat(even.base()).contains(new VersionName(1, 1));
        // Another person goes on with the trial: the desk is behind its line, whatever the main one does.
        long trial = even.trial().orElseThrow();
        change(tomasz, trial, item, bytes("thinner still"));
        server.checkOut("priya", item);
        server.checkIn("priya", item, bytes("main went on"), false);
        assertThat(standing(item, "wall").standing().word()).isEqualTo(Word.BEHIND);
        assertThat(desk("fetch")).isZero();
        assertThat(place("wall")).hasContent("thinner still");
        // And back to the main line.
        assertThat(desk("fetch", number("wall"), "--line", "main")).isZero();
        assertThat(place("wall")).hasContent("main went on");
        assertThat(standing(item, "wall").trial()).isEmpty();
        assertThat(standing(item, "wall").standing().word()).isEqualTo(Word.EVEN);
    }

    @Test
    void whenATrialIsOverItsDeskStandsToTheMainLineAgain() throws IOException {
        long dropped = filed("dropped", "one");
        long changed = filed("changed", "two");
        long trial = begin(priya, "both", dropped, changed);
        for (String name : List.of("dropped", "changed"))
            assertThat(desk("check-out", number(name), "--line", "t1")).isZero();
        Files.writeString(place("dropped"), "one, tried");
        Files.writeString(place("changed"), "two, tried");
        assertThat(desk("check-in")).isZero();
        assertThat(desk("check-out", number("changed"))).isZero();
        Files.writeString(place("changed"), "two, tried again");
        assertThat(desk("undo", number("changed"))).isZero();
        assertThat(companion.said()).contains("stays as you changed it");
        drop.drop(priya, trial, "not worth it", Server.key());
        assertThat(standing(dropped, "dropped").standing().word())
                .as("what was brought lies there unchanged: nothing is lost by bringing the main line's")
                .isEqualTo(Word.BEHIND);
        assertThat(standing(changed, "changed").standing().word()).isEqualTo(Word.STRAYED);
        assertThat(desk("fetch")).isZero();
        assertThat(place("dropped")).hasContent("one");
        assertThat(place("changed")).hasContent("two, tried again");
        assertThat(desk("check-out", number("dropped"), "--line", "t1"))
                .as("a trial that is over is worked on by nobody")
                .isEqualTo(1);
    }

    @Test
    void whoSeesNoWorkInPreparationKnowsOfNoTrial() {
        long item = filed("quiet", "one");
        begin(priya, "quietly", item);
        assertThatThrownBy(() -> holds.takeOn(server.actor("rafael"), "t1", List.of(item), Server.key(), "", ""))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> holds.onLine(server.actor("rafael"), "t1", List.of(item)))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> holds.onLine(priya, "t2", List.of(item))).isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> holds.onLine(priya, "main", List.of(item))).isInstanceOf(NotThere.class);
        desks.open(server.actor("rafael"), "R " + mark);
        assertThatThrownBy(() -> desks.brought(
                        server.actor("rafael"),
                        "R " + mark,
                        List.of(new Desks.Bring(item, VersionName.main(1), 1, "a.txt", false))))
                .isInstanceOf(NotThere.class);
    }

    @Test
    void whatIsCalledAlikeOnTwoTrialsIsNotTakenAsOne() {
        long one = filed("one", "1");
        long two = filed("two", "2");
        begin(priya, "the one", one);
        begin(priya, "the other", two);
        assertThatThrownBy(() -> holds.takeOn(priya, "t1", List.of(one, two), Server.key(), bench, ""))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("trial.several"));
        assertThat(desk("check-out", number("one"), number("two"), "--line", "t1"))
                .isEqualTo(1);
        assertThat(companion.said()).contains("2 trials that are called t1").contains("one trial at a time");
    }
}
