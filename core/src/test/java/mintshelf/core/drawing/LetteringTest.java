package mintshelf.core.drawing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class LetteringTest {
    @Test
    void whatFitsStaysAsItIs() {
        assertThat(Lettering.fit("Gland plate", 20, 1, 1, false))
                .isEqualTo(new Lettering.Fitted(List.of("Gland plate"), 1));
        assertThat(Lettering.fit("", 0, 0.8, 1, false).factor()).isEqualTo(0.8);
        assertThat(Lettering.fit("x".repeat(400), Double.POSITIVE_INFINITY, 1, 1, false)
                        .factor())
                .isEqualTo(1);
    }

    @Test
    void lettersAreNarrowedBeforeAnythingIsLeftOut() {
        double room = Lettering.wide("In preparation") * 0.87;
        Lettering.Fitted fitted = Lettering.fit("In preparation", room, 1, 1, false);
        assertThat(fitted).isEqualTo(new Lettering.Fitted(List.of("In preparation"), 0.87));
        assertThat(Lettering.fit("In preparation", room, 0.8, 1, false).factor())
                .as("narrow enough")
                .isEqualTo(0.8);
    }

    @Test
    void theFewestLinesAreTakenWithTheWidestLetters() {
        double room = Lettering.wide("holes widened for the M6");
        Lettering.Fitted fitted = Lettering.fit("holes widened for the M6 glands of the tender", room, 1, 3, false);
        assertThat(fitted.lines()).containsExactly("holes widened for the M6", "glands of the tender");
        assertThat(fitted.factor()).isEqualTo(1);
    }

    @Test
    void whatStillDoesNotFitIsCutBehindAWord() {
        String text =
                "corner radius raised to ten because the tank that it goes into has been bent otherwise since spring";
        Lettering.Fitted fitted = Lettering.fit(text, 18, 1, 2, false);
        assertThat(fitted.factor()).isEqualTo(0.75);
        assertThat(fitted.lines()).hasSize(2).last().asString().endsWith("…").doesNotContain(" …", ",…");
        assertThat(text).startsWith(fitted.lines().get(0));
    }

    @Test
    void firstNamesBecomeInitialsBeforeNamesAreCut() {
        assertThat(Lettering.initials("Oluwaseun Adebari, Ines, Marit van der Berg"))
                .isEqualTo("O. Adebari, Ines, M. Berg");
        double room = Lettering.wide("O. Adebari");
        assertThat(Lettering.fitNames("Oluwaseun Adebari", room, 1).lines()).containsExactly("O. Adebari");
        assertThat(Lettering.fitNames("Ines", room, 1).lines()).containsExactly("Ines");
    }

    @Test
    void aNumberIsNeverCut() {
        assertThat(Lettering.fit("TG40-3030-120", 3, 1, 1, true))
                .isEqualTo(new Lettering.Fitted(List.of("TG40-3030-120"), 0.75));
    }

    @Test
    void lettersOfTheEastStandInSquares() {
        assertThat(Lettering.wide("図面")).isEqualTo(2 * 1000 / Lettering.CAPITAL);
    }

    @Test
    void whateverIsFittedFits() {
        Random random = new Random(7);
        for (int i = 0; i < 3000; i++) {
            StringBuilder text = new StringBuilder();
            int words = 1 + random.nextInt(12);
            for (int w = 0; w < words; w++) {
                if (w > 0) text.append(' ');
                text.append("abcdefghijklmnopqrstuvwxyz", 0, 1 + random.nextInt(12));
            }
            double room = 5 + random.nextDouble() * 40;
            double own = random.nextBoolean() ? 1 : 0.8;
            int most = 1 + random.nextInt(3);
            Lettering.Fitted fitted = Lettering.fit(text.toString(), room, own, most, false);
            assertThat(fitted.lines()).hasSizeBetween(1, most);
            assertThat(fitted.factor()).isBetween(own * Lettering.NARROWEST - 1e-9, own);
            for (String line : fitted.lines()) {
                assertThat(Lettering.wide(line) * fitted.factor())
                        .as(text + " in " + room)
                        .isLessThanOrEqualTo(room + 1e-6);
            }
            String joined = String.join(" ", fitted.lines());
            if (!joined.contains("…")) assertThat(joined).isEqualTo(text.toString());
        }
    }
}
