package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.redline.Colour;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The colours of both themes stand out from the grounds that they are written on: WCAG 2.2, 1.4.3, 4.5 to 1, by the relative
 * luminance of its definition.
 */
class PaletteTest {
    private static final List<String> GROUNDS = List.of("paper", "card", "head");
    private static final List<String> INKS = List.of("ink", "quiet", "mint-deep", "amber", "plum", "blue", "brick");
    private static final Map<String, List<String>> ON_THEIR_OWN = Map.of(
            "band", List.of("band-ink", "band-quiet"),
            "mint-tint", List.of("ink", "mint-deep"),
            "mint-pale", List.of("ink", "mint-deep"),
            "amber-tint", List.of("ink", "amber"),
            "brick-tint", List.of("ink", "brick"),
            "plum-tint", List.of("ink", "plum"));

    private static Map<String, String> palette(String theme) throws IOException {
        String css;
        try (InputStream in = PaletteTest.class.getResourceAsStream("/static/css/mint.css")) {
            css = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        Matcher block = Pattern.compile("(?m)^[^{\\n]*\\[data-bs-theme=\"" + theme + "\"\\] \\{([^}]*)}")
                .matcher(css);
        assertThat(block.find()).as(theme).isTrue();
        Map<String, String> colours = new HashMap<>();
        Matcher one = Pattern.compile("--([a-z-]+): (#[0-9a-f]{6});").matcher(block.group(1));
        while (one.find()) colours.put(one.group(1), one.group(2));
        return colours;
    }

    private static double luminance(String colour) {
        double[] weights = {0.2126, 0.7152, 0.0722};
        double sum = 0;
        for (int i = 0; i < 3; i++) {
            double part = Integer.parseInt(colour.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
            sum += weights[i] * (part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4));
        }
        return sum;
    }

    private static double contrast(String one, String other) {
        double a = luminance(one);
        double b = luminance(other);
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    @ParameterizedTest
    @ValueSource(strings = {"light", "dark"})
    void whatIsWrittenStandsOutFromItsGround(String theme) throws IOException {
        Map<String, String> colours = palette(theme);
        for (String ground : GROUNDS) {
            for (String ink : INKS) stands(theme, colours, ink, ground);
        }
        ON_THEIR_OWN.forEach((ground, inks) -> inks.forEach(ink -> stands(theme, colours, ink, ground)));
    }

    private static void stands(String theme, Map<String, String> colours, String ink, String ground) {
        assertThat(contrast(colours.get(ink), colours.get(ground)))
                .as(ink + " on " + ground + ", " + theme)
                .isGreaterThanOrEqualTo(4.5);
    }

    /** The list names a reviewer in the ink that the core draws their marks with. */
    @ParameterizedTest
    @EnumSource(Colour.class)
    void marksHaveOneInkOnTheSheetAndBesideIt(Colour colour) throws IOException {
        try (InputStream in = PaletteTest.class.getResourceAsStream("/static/css/mint.css")) {
            assertThat(new String(in.readAllBytes(), StandardCharsets.UTF_8))
                    .contains(String.format(
                            Locale.ROOT, ".ink-%s { --ink-of-mark: #%06x; }", colour.code(), colour.rgb()));
        }
    }
}
