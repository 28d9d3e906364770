package mintshelf.core.drawing.dxf;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TextCodesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "plain text|plain text",
                "\\A1;4x ⌀5.5|4x ⌀5.5",
                "{\\H0.7x;small} and large|small and large",
                "\\C1;red \\C256;as the layer|red as the layer",
                "\\Lunder\\l and \\Oover\\o|under and over",
                "\\S1/2; inch|1/2 inch",
                "\\S1#2; inch|1/2 inch",
                "20\\S+0.1^-0.2;|20+0.1 -0.2",
                "20\\S+0.1^ -0.2;|20+0.1 -0.2",
                "a\\~b|a\u00a0b",
                "a\\\\b \\{c\\}|a\\b {c}",
                "\\pi1,l2;list|list",
                "\\W0.8;\\T1.1;\\Q10;\\Kstruck\\k|struck",
                "tab^Istop|tab stop",
                "caret^ here|caret^here",
            })
    void oneLineIsWhatAReaderSees(String raw, String wanted) {
        assertThat(TextCodes.lines(raw)).containsExactly(wanted);
    }

    @Test
    void fontsMayHaveBarsInTheirNames() {
        assertThat(TextCodes.lines("{\\fArial Narrow|b1|i0|c238|p34;NOTES}")).containsExactly("NOTES");
        assertThat(TextCodes.lines("{\\Ftxt.shx|c0;a}{\\Fgdt.shx;j}")).containsExactly("aj");
    }

    @Test
    void paragraphsAndLineEndsAreLines() {
        assertThat(TextCodes.lines("one\\Ptwo\\P\\Pfour")).containsExactly("one", "two", "", "four");
        assertThat(TextCodes.lines("one^Jtwo")).containsExactly("one", "two");
        assertThat(TextCodes.lines("")).containsExactly("");
    }

    @Test
    void signsOfOldLinesAreResolved() {
        assertThat(TextCodes.line("%%c5.5 %%d %%p0.1")).isEqualTo("⌀5.5 ° ±0.1");
        assertThat(TextCodes.line("%%uunder%%u \\U+00D8")).isEqualTo("under Ø");
    }

    @Test
    void whatIsBrokenOffDoesNotEndTheReading() {
        for (String raw : List.of("\\S1/2", "\\H3.5", "\\", "{\\f", "a\\", "^", "\\U+00", "%%", "%%c", "}{", "\\A;x")) {
            assertThat(TextCodes.lines(raw)).as(raw).isNotEmpty();
        }
        Random random = new Random(21);
        String letters = "\\{};PSHAfF^J I%uUc+0D8/#.x~ a";
        for (int i = 0; i < 5_000; i++) {
            StringBuilder raw = new StringBuilder();
            for (int k = random.nextInt(24); k > 0; k--) raw.append(letters.charAt(random.nextInt(letters.length())));
            assertThat(TextCodes.lines(raw.toString())).as(raw.toString()).isNotEmpty();
            assertThat(TextCodes.height(raw.toString(), 2.5)).as(raw.toString()).isNotNegative();
        }
    }

    @Test
    void aHeightOfItsOwnStandsAtTheBeginning() {
        assertThat(TextCodes.height("\\H3.5;text", 2.5)).isEqualTo(3.5);
        assertThat(TextCodes.height("{\\fArial;\\H2x;text}", 2.5)).isEqualTo(5);
        assertThat(TextCodes.height("\\A1;\\H0.5x;text", 2.5)).isEqualTo(1.25);
        assertThat(TextCodes.height("text \\H9;later", 2.5)).isZero();
        assertThat(TextCodes.height("\\Hx;", 2.5)).isZero();
        assertThat(TextCodes.height("\\H-1;", 2.5)).isZero();
    }

    @Test
    void linesAreBrokenAtBlanksAndNoWordIsLost() {
        assertThat(TextCodes.wrapped(List.of("break all sharp edges"), 10, 1))
                .containsExactly("break all", "sharp", "edges");
        assertThat(TextCodes.wrapped(List.of("unbreakableword next"), 6, 1)).containsExactly("unbreakableword", "next");
        assertThat(TextCodes.wrapped(List.of("any width"), 0, 1)).containsExactly("any width");
        Random random = new Random(22);
        for (int i = 0; i < 300; i++) {
            StringBuilder text = new StringBuilder("w");
            for (int k = 0; k < 30; k++) text.append(random.nextInt(4) == 0 ? " " : "x");
            String line = text.toString();
            int width = 1 + random.nextInt(20);
            List<String> wrapped = TextCodes.wrapped(List.of(line), width, 1);
            assertThat(String.join(" ", wrapped)).isEqualTo(line);
            for (String one : wrapped)
                assertThat(one.length() <= width || !one.strip().contains(" ")).isTrue();
        }
    }
}
