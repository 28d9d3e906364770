package mintshelf.companion.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DraftsTest {
    private static final Instant MORNING = Instant.parse("2026-11-23T08:00:00Z");

    @TempDir
    Path folder;

    private boolean save(String text, long minute) throws IOException {
        Path file = folder.resolve("gland.dxf");
        Files.writeString(file, text);
        return drafts().keep("TG40/gland.dxf", file, FileHash.of(file), MORNING.plusSeconds(60 * minute));
    }

    private Drafts drafts() {
        return new Drafts(folder.resolve("drafts"));
    }

    private List<String> texts() throws IOException {
        List<String> texts = new ArrayList<>();
        for (Drafts.Draft d : drafts().of("TG40/gland.dxf"))
            texts.add(Files.readString(drafts().content(d.hash()).orElseThrow()));
        return texts;
    }

    @Test
    void whatWasSavedIsKeptTheLatestFirst() throws IOException {
        assertThat(texts()).isEmpty();
        assertThat(save("one", 0)).isTrue();
        assertThat(save("two", 20)).isTrue();
        assertThat(texts()).containsExactly("two", "one");
        assertThat(save("two", 40)).as("the same is kept already").isFalse();
        assertThat(save("one", 60)).isTrue();
        assertThat(texts()).as("once, where it was last").containsExactly("one", "two");
    }

    @Test
    void savesThatFollowEachOtherAreFoldedButNeverForLong() throws IOException {
        for (int minute = 0; minute < 60; minute++) save("minute " + minute, minute);
        assertThat(texts()).startsWith("minute 59").endsWith("minute 0").hasSizeBetween(6, 8);
    }

    @Test
    void theLastTwentyAreKeptAndWhatNothingNamesIsGone() throws IOException {
        for (int i = 0; i < 30; i++) save("save " + i, 10L * i);
        assertThat(texts()).hasSize(Drafts.MOST).startsWith("save 29").endsWith("save 10");
        try (var files = Files.list(folder.resolve("drafts/contents"))) {
            assertThat(files).hasSize(Drafts.MOST);
        }
    }

    @Test
    void aClockThatIsSetBackFoldsNothing() throws IOException {
        save("one", 100);
        save("two", 101);
        save("three", 50);
        assertThat(texts()).containsExactly("three", "two", "one");
    }

    @Test
    void whatIsWrittenToWhileItIsCopiedIsNotKept() throws IOException {
        Path file = Files.writeString(folder.resolve("gland.dxf"), "now");
        String before = "0".repeat(64);
        assertThat(drafts().keep("TG40/gland.dxf", file, before, MORNING)).isFalse();
        assertThat(texts()).isEmpty();
    }

    @Test
    void aListThatIsBrokenIsBegunAnew() throws IOException {
        save("one", 0);
        Files.writeString(folder.resolve("drafts/drafts.json"), "{ \"TG40");
        assertThat(texts()).isEmpty();
        save("two", 20);
        assertThat(texts()).containsExactly("two");
    }
}
