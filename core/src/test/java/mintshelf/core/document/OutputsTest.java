package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import org.junit.jupiter.api.Test;

/** What is made of released versions, and what the files are called. */
class OutputsTest {
    private static Outputs called(String name) {
        return new Outputs(List.of(OutputFormat.PDF, OutputFormat.STEP), name);
    }

    private static String named(String pattern, String title) {
        return called(pattern).named("TG40-3030", "C", title, "drawing", OutputFormat.PDF);
    }

    @Test
    void placesAreFilledAndTheEndingIsTheFormats() {
        assertThat(named("{number}_{revision} {title}", "Gland plate")).isEqualTo("TG40-3030_C Gland plate.pdf");
        assertThat(called("{kind} {number}").named("A", "1", "t", "part model", OutputFormat.STEP))
                .isEqualTo("part model A.step");
    }

    @Test
    void whatNoFileSystemTakesBecomesADash() {
        assertThat(named("{number}/{title}", "a\\b:c*?\"<>|\n\u202Ed")).isEqualTo("TG40-3030-a-b-c--------d.pdf");
        assertThat(named("../{number}", "")).isEqualTo("-TG40-3030.pdf");
        assertThat(called("{title}").named("", "", "...", "", OutputFormat.PDF)).isEqualTo("file.pdf");
    }

    @Test
    void whateverATitleSaysTheNameIsOneName() {
        Random random = new Random(40);
        for (int i = 0; i < 2000; i++) {
            StringBuilder title = new StringBuilder();
            for (int n = random.nextInt(300); n > 0; n--) title.appendCodePoint(1 + random.nextInt(0xd000));
            String name = named("{title} {number}", title.toString());
            assertThat(name).endsWith(".pdf").doesNotContain("/", "\\", "\n", "\0", ":");
            assertThat(name.startsWith(".")).isFalse();
            assertThat(name.codePointCount(0, name.length())).isLessThanOrEqualTo(124);
        }
    }

    @Test
    void onlyWhatAContentCanBecomeIsMade() {
        assertThat(called("{number}").of(ContentKind.DXF)).containsExactly(OutputFormat.PDF);
        assertThat(called("{number}").of(ContentKind.STEP)).containsExactly(OutputFormat.STEP);
        assertThat(called("{number}").of(ContentKind.PDF)).isEmpty();
    }

    @Test
    void aNameThatManyWouldHaveIsRefused() {
        assertThat(called("{title}").ask().map(Refusal::code)).contains("outputs.name");
        assertThat(called("{number} {shelf}").ask().map(Refusal::says).orElse(""))
                .contains("{shelf}");
        assertThat(called("{number}" + "x".repeat(200)).ask()).isPresent();
        assertThat(called("{number}").ask()).isEmpty();
        assertThat(new Outputs(List.of(), "").ask())
                .as("nothing is made, nothing is called")
                .isEmpty();
        assertThat(Outputs.USUAL.ask()).isEmpty();
    }
}
