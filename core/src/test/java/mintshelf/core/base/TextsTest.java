package mintshelf.core.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TextsTest {
    @Test
    void aLineLosesControlAndDirectionCharactersAndFoldsBlanks() {
        assertThat(Texts.line("  Gland\u0000 \t plate\r\n")).isEqualTo("Gland plate");
        assertThat(Texts.line("fxd.\u202Eetalp")).isEqualTo("fxd.etalp");
        assertThat(Texts.line("Ko\u0308ge")).isEqualTo("K\u00f6ge");
    }

    @Test
    void linesKeepTheirBreaks() {
        assertThat(Texts.lines("a\r\nb\rc\n\n\n\nd ")).isEqualTo("a\nb\nc\n\nd");
    }

    @Test
    void keysIgnoreCaseAndComposition() {
        assertThat(Texts.key("KØGE Dock")).isEqualTo(Texts.key("køge dock"));
        assertThat(Texts.key("K\u00d6GE")).isEqualTo(Texts.key("ko\u0308ge"));
    }

    /** Plain texts take a short way; a letter that needs the long one behind them must not change what they give. */
    @Test
    void plainTextsGiveWhatTheLongWayGives() {
        Random random = new Random(40);
        for (int i = 0; i < 2000; i++) {
            StringBuilder text = new StringBuilder();
            for (int k = random.nextInt(12); k > 0; k--) text.append((char) (' ' + random.nextInt(95)));
            if (random.nextBoolean()) text.append("  x ");
            String plain = text.toString();
            String longWay = Texts.line(plain + "\u00fc");
            assertThat(Texts.line(plain + "u")).isEqualTo(longWay.substring(0, longWay.length() - 1) + "u");
            assertThat(Texts.key(plain + "U")).isEqualTo(Texts.line(plain + "u").toLowerCase(Locale.ROOT));
        }
    }

    @Test
    void shorteningNeverCutsACharacterInTwo() {
        String text = "aaaa\uD83D\uDEA2bbbb";
        for (int most = 2; most < text.length(); most++) {
            String cut = Texts.shorten(text, most);
            assertThat(cut.length()).isLessThanOrEqualTo(most);
            assertThat(Character.isHighSurrogate(cut.charAt(Math.max(0, cut.length() - 2))))
                    .isFalse();
        }
    }

    @Test
    void aTextThatIsTooLongIsRefusedWithItsLength() {
        Refusal refusal = Texts.optionalLines("The comment", "x".repeat(100_000), 10_000)
                .refusal()
                .orElseThrow();
        assertThat(refusal.code()).isEqualTo("text.long");
        assertThat(refusal.reason()).contains("100\u2009000").contains("10\u2009000");
    }

    @Test
    void sizesAndCountsReadAsPeopleSayThem() {
        assertThat(Numbers.size(1)).isEqualTo("1 byte");
        assertThat(Numbers.size(999)).isEqualTo("999 bytes");
        assertThat(Numbers.size(1_500)).isEqualTo("1.5 kB");
        assertThat(Numbers.size(999_600)).isEqualTo("1.0 MB");
        assertThat(Numbers.size(314_572_800)).isEqualTo("315 MB");
        assertThat(Numbers.count(1, "document", "documents")).isEqualTo("1 document");
        assertThat(Numbers.count(10_000, "document", "documents")).isEqualTo("10\u2009000 documents");
    }
}
